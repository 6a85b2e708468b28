import { useCommands } from '../../desk/commands.ts';
import { workbench } from '../../desk/workbench.ts';

/** What every stage with a picture offers: back from scouting, and keeping what one sees. */
export function useScoutCommands({ canKeep, onKeep }: { canKeep: boolean; onKeep: () => void }): void {
  useCommands([
    {
      id: 'scout.back',
      label: 'Back from scouting',
      group: 'Picture',
      keys: 'b',
      when: () => workbench.get().scout !== null,
      run: () => workbench.set({ scout: null }),
    },
    {
      id: 'view.keep',
      label: 'Keep what you see as a view',
      group: 'Picture',
      keys: 'v',
      when: () => canKeep,
      run: onKeep,
    },
  ]);
}
