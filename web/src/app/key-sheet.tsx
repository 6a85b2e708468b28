import { useState, type KeyboardEvent } from 'react';
import { useAllCommands, type Command } from '../desk/commands.ts';
import { chosenKeys, setKeySettings, useKeySettings } from '../desk/key-settings.ts';
import { keysInWords } from '../desk/keys.ts';
import { Button, Dialog } from '../kit/index.ts';

/** What hands do that is no command. */
const HANDS: readonly (readonly [string, string])[] = [
  ['W A S D or arrows', 'Walk, with the picture in focus (Shift runs)'],
  ['Arrows', 'Move the plan; with a tool in hand its cursor, Enter presses there'],
  ['+ − Home', 'Zoom the plan, show the whole'],
  ['C', 'Corner or smooth, with a node in focus'],
  ['Arrows, Delete', 'Move or remove the chosen nodes'],
  ['Shift, Ctrl', 'Choose a range, choose one more: in lists, plan and picture'],
  ['Esc', 'Take back what is being dragged'],
];

/** All keys: they can be changed, and letters can be switched off. */
export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Keys">
      <Keys />
    </Dialog>
  );
}

function Keys() {
  const commands = useAllCommands().filter(({ hidden, keys }) => !hidden && keys);
  const { singles, changed } = useKeySettings();
  const groups = [...new Set(commands.map(({ group }) => group))];
  return (
    <>
      <label className="mb-3 flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-lagoon"
          checked={singles}
          onChange={(event) => setKeySettings({ singles: event.target.checked })}
        />
        Letters and signs work as keys by themselves
      </label>
      {groups.map((group) => (
        <section key={group} aria-label={group} className="mb-3">
          <h3 className="mb-1 font-semibold text-ink-soft">{group}</h3>
          <ul className="grid gap-1">
            {commands
              .filter((command) => command.group === group)
              .map((command) => (
                <KeyLine key={command.id} command={command} keys={chosenKeys(command, changed)} />
              ))}
          </ul>
        </section>
      ))}
      <h3 className="mb-1 font-semibold text-ink-soft">Hands</h3>
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1">
        {HANDS.map(([key, what]) => (
          <div key={what} className="contents">
            <dt className="font-mono font-medium">{key}</dt>
            <dd className="text-ink-soft">{what}</dd>
          </div>
        ))}
      </dl>
      {Object.keys(changed).length > 0 && (
        <div className="mt-3 text-right">
          <Button small onClick={() => setKeySettings({ changed: {} })}>
            All keys as they were
          </Button>
        </div>
      )}
    </>
  );
}

function KeyLine({ command, keys }: { command: Command; keys: string | undefined }) {
  const [asking, setAsking] = useState(false);
  const take = (event: KeyboardEvent) => {
    event.preventDefault();
    event.stopPropagation();
    if (['Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) return;
    setAsking(false);
    if (event.key === 'Escape' || event.key === 'Tab') return;
    const { changed } = useKeySettings.getState();
    const next = event.key === 'Backspace' || event.key === 'Delete' ? '' : written(event);
    setKeySettings({ changed: { ...changed, [command.id]: next } });
  };
  return (
    <li className="flex items-center justify-between gap-3">
      <span className="text-ink-soft">{command.label}</span>
      <button
        type="button"
        aria-label={`Key for ${command.label}: ${keys ? keysInWords(keys) : 'none'}. Press to change it.`}
        className="min-w-14 rounded-md border border-rule bg-raised px-2 py-0.5 text-center font-mono text-sm hover:border-ink-faint"
        onClick={() => setAsking(true)}
        onBlur={() => setAsking(false)}
        onKeyDown={asking ? take : undefined}
      >
        {asking ? 'press a key' : keys ? keysInWords(keys) : 'none'}
      </button>
    </li>
  );
}

/** A pressed key as commands have them. */
function written(event: KeyboardEvent): string {
  const modifiers = [
    ...(event.ctrlKey || event.metaKey ? ['$mod'] : []),
    ...(event.altKey ? ['Alt'] : []),
    ...(event.shiftKey ? ['Shift'] : []),
  ];
  const key = event.key === ' ' ? 'Space' : event.key.length === 1 ? event.key.toLowerCase() : event.key;
  return [...modifiers, key].join('+');
}
