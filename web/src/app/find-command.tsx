import { useId, useState } from 'react';
import { isReady, useAllCommands, type Command } from '../desk/commands.ts';
import { chosenKeys, useKeySettings } from '../desk/key-settings.ts';
import { keysInWords } from '../desk/keys.ts';
import { cx, Dialog } from '../kit/index.ts';

/** Everything that can be done now, found by its words. */
export function FindCommand({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Find a command">
      <Finder onDone={onClose} />
    </Dialog>
  );
}

function Finder({ onDone }: { onDone: () => void }) {
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const { changed } = useKeySettings();
  const list = useId();
  const words = typed.trim().toLowerCase().split(/\s+/);
  const found = useAllCommands().filter(
    (command) =>
      !command.hidden &&
      isReady(command) &&
      words.every((word) => `${command.label} ${command.group}`.toLowerCase().includes(word)),
  );
  const active = found[Math.min(at, found.length - 1)];
  const run = (command: Command) => {
    onDone();
    // The dialog gives its focus back first.
    setTimeout(command.run, 30);
  };
  return (
    <>
      <input
        autoFocus
        role="combobox"
        aria-expanded
        aria-controls={list}
        aria-label="Command"
        {...(active ? { 'aria-activedescendant': `${list}-${found.indexOf(active)}` } : {})}
        placeholder="What do you want to do?"
        className="mb-2 h-9 w-full rounded-lg border border-rule bg-raised px-3"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(found.length - 1, at + 1));
          else if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1));
          else if (event.key === 'Enter' && active) run(active);
          else return;
          event.preventDefault();
        }}
      />
      <ul id={list} role="listbox" data-always aria-label="Commands" className="h-72 overflow-y-auto">
        {found.map((command, i) => {
          const keys = chosenKeys(command, changed);
          return (
            <li
              key={command.id}
              id={`${list}-${i}`}
              role="option"
              aria-selected={command === active}
              className={cx(
                'flex cursor-pointer items-center gap-3 rounded-md px-2 py-1.5',
                command === active && 'bg-lagoon-wash',
              )}
              onPointerDown={(event) => {
                event.preventDefault();
                run(command);
              }}
            >
              <span className="flex-1">{command.label}</span>
              <span className="text-sm text-ink-faint">{command.group}</span>
              {keys && <kbd className="font-mono text-sm text-ink-soft">{keysInWords(keys)}</kbd>}
            </li>
          );
        })}
      </ul>
      {found.length === 0 && <p className="text-ink-soft">Nothing that can be done here is called that.</p>}
    </>
  );
}
