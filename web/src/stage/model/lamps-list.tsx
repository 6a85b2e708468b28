import { isLit, type Lamps } from '@eskovan/core/document';
import { useMemo } from 'react';
import { Segmented } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import type { PartInfo } from '../../worker/parts.ts';
import { glows } from './edit-actions.ts';

interface LampGroup {
  model: string;
  /** The path that its lamps share. */
  name: string;
}

/** Lamps that hang together: those under one name. */
function lampGroups(parts: readonly PartInfo[]): LampGroup[] {
  const groups = new Map<string, LampGroup>();
  for (const part of parts) {
    if (!glows(part)) continue;
    const { model, name } = part;
    const group = name.split(' / ').slice(0, -1).join(' / ') || name;
    groups.set(`${model}\n${group}`, { model, name: group });
  }
  return [...groups.values()].sort((a, b) => a.name.localeCompare(b.name));
}

/** Switches lamps on and off, all of them or by name. */
export function LampsList({ lamps, onLamps }: { lamps: Lamps; onLamps: (lamps: Lamps) => void }) {
  const parts = useParts();
  const groups = useMemo(() => lampGroups(parts), [parts]);
  if (groups.length === 0) return <p className="py-1 text-sm text-ink-faint">Nothing in this model gives off light.</p>;
  const on = groups.filter((group) => isLit(lamps, group)).length;
  const turn = (group: LampGroup) => {
    const others = lamps.except.filter(({ model, name }) => model !== group.model || name !== group.name);
    onLamps({ ...lamps, except: others.length < lamps.except.length ? others : [...others, group] });
  };
  return (
    <>
      <div className="flex min-h-7 items-center justify-between gap-3">
        <span className="text-ink-soft">Lamps</span>
        <Segmented
          label="Lamps"
          value={on === groups.length ? 'on' : on === 0 ? 'off' : 'some'}
          options={[
            { value: 'on', label: 'All on' },
            { value: 'off', label: 'Off' },
          ]}
          onChange={(value) => onLamps({ lit: value === 'on', except: [] })}
        />
      </div>
      <details className="mt-0.5">
        <summary className="cursor-pointer rounded text-sm text-ink-soft">
          {on} of {groups.length} groups on
        </summary>
        <ul className="mt-1 max-h-44 overflow-y-auto">
          {groups.map((group) => (
            <li key={`${group.model} ${group.name}`}>
              <label className="flex min-h-6 items-center gap-2">
                <input
                  type="checkbox"
                  className="accent-lagoon"
                  checked={isLit(lamps, group)}
                  onChange={() => turn(group)}
                />
                <span className="truncate" title={group.name}>
                  {group.name}
                </span>
              </label>
            </li>
          ))}
        </ul>
      </details>
    </>
  );
}
