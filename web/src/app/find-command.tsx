import { isReady, useAllCommands, type Command } from '../desk/commands.ts';
import { chosenKeys, useKeySettings } from '../desk/key-settings.ts';
import { keysInWords } from '../desk/keys.ts';
import { Dialog, Finder } from '../kit/index.ts';

/** Until a dialog that closes has given its focus back, milliseconds. */
const FOCUS_MS = 30;

/** Everything that can be done now, found by its words. */
export function FindCommand({ open, onClose }: { open: boolean; onClose: () => void }) {
  const commands = useAllCommands();
  const { changed } = useKeySettings();
  const find = (typed: string) => {
    const words = typed.trim().toLowerCase().split(/\s+/);
    const fits = ({ label, group }: Command) => words.every((word) => `${label} ${group}`.toLowerCase().includes(word));
    return commands.filter((command) => !command.hidden && isReady(command) && fits(command));
  };
  const run = (command: Command) => {
    onClose();
    setTimeout(command.run, FOCUS_MS);
  };
  return (
    <Dialog open={open} onClose={onClose} title="Find a command">
      <Finder
        autoFocus
        label="Command"
        listLabel="Commands"
        placeholder="What do you want to do?"
        find={find}
        keyOf={({ id }) => id}
        onChoose={run}
        nothing="Nothing that can be done here is called that."
        className="h-72"
      >
        {(command) => {
          const keys = chosenKeys(command, changed);
          return (
            <>
              <span className="flex-1 py-1">{command.label}</span>
              <span className="text-sm text-ink-faint">{command.group}</span>
              {keys && <kbd className="font-mono text-sm text-ink-soft">{keysInWords(keys)}</kbd>}
            </>
          );
        }}
      </Finder>
    </Dialog>
  );
}
