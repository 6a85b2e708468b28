import type { Rate } from '@eskovan/core/document';
import { frameAt } from '@eskovan/core/reel';
import { useCommands } from './commands.ts';
import { goToFrame, setRound, shuttle, stopPlaying, togglePlaying } from './playing.ts';
import { workbench } from './workbench.ts';

/** Playing, shuttling and stepping through whatever lasts. @param steps every frame can be waited for */
export function useTimeCommands(duration: number, rate: Rate, steps = false): void {
  const frame = () => frameAt(workbench.get().time, rate);
  const playable = () => duration > 0;
  useCommands([
    {
      id: 'time.play',
      label: 'Play or pause',
      group: 'Time',
      keys: 'Space',
      when: playable,
      run: () => togglePlaying(duration),
    },
    ...[
      { id: 'forward', label: 'Play forward; again: faster', keys: 'l', run: () => shuttle(1, duration) },
      { id: 'backward', label: 'Play backward; again: faster', keys: 'j', run: () => shuttle(-1, duration) },
      { id: 'stop', label: 'Stop playing', keys: 'k', run: stopPlaying },
      { id: 'half', label: 'Play at half speed', run: () => shuttle(1, duration, 0.5) },
      { id: 'quarter', label: 'Play at a quarter of the speed', run: () => shuttle(1, duration, 0.25) },
      {
        id: 'round.from',
        label: 'Play round and round from here',
        keys: '[',
        run: () => setRound('from', workbench.get().time, duration),
      },
      {
        id: 'round.to',
        label: 'Play round and round up to here',
        keys: ']',
        run: () => setRound('to', workbench.get().time, duration),
      },
    ].map((command) => ({ ...command, id: `time.${command.id}`, group: 'Time', when: playable })),
    {
      id: 'time.every',
      label: 'Play every frame, or in real time',
      group: 'Time',
      when: () => steps && playable(),
      run: () => workbench.set({ everyFrame: !workbench.get().everyFrame }),
    },
    {
      id: 'time.back',
      label: 'Back one frame',
      group: 'Time',
      keys: ',',
      when: playable,
      run: () => goToFrame(frame() - 1, duration, rate),
    },
    {
      id: 'time.on',
      label: 'Forward one frame',
      group: 'Time',
      keys: '.',
      when: playable,
      run: () => goToFrame(frame() + 1, duration, rate),
    },
    { id: 'time.start', label: 'To the start', group: 'Time', when: playable, run: () => goToFrame(0, duration, rate) },
    {
      id: 'time.round.end',
      label: 'Play all of it again',
      group: 'Time',
      when: () => workbench.get().round !== null,
      run: () => workbench.set({ round: null }),
    },
  ]);
}
