import { LONGEST_GROUP_NAME, type Row } from '@eskovan/core/document';
import { useId, useState } from 'react';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Line } from '../../kit/index.ts';
import { groupRows } from '../shared/group-rows.ts';
import { VIEW_GROUPS } from './view-body.ts';

/** The group that views stand in: those of the list are offered, a new name makes a new one, none takes them out. */
export function GroupField({ rows }: { rows: readonly Row<'view'>[] }) {
  const [typed, setTyped] = useState<string | null>(null);
  const list = useId();
  const { view } = useProject();
  const known = [...new Set(liveRows(view).flatMap((row) => VIEW_GROUPS.of(row) ?? []))].sort();
  const groups = new Set(rows.map(VIEW_GROUPS.of));
  const shared = groups.size === 1 ? (VIEW_GROUPS.of(rows[0]!) ?? '') : '';
  const give = () => {
    if (typed !== null && typed.trim() !== shared) groupRows('view', rows, typed.trim() || undefined, VIEW_GROUPS);
    setTyped(null);
  };
  return (
    <Line label="Group">
      <input
        aria-label="Group"
        placeholder={groups.size > 1 ? 'Various' : 'None'}
        list={list}
        maxLength={LONGEST_GROUP_NAME}
        value={typed ?? shared}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={give}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') give();
          if (event.key === 'Escape') setTyped(null);
        }}
        className="h-7 w-36 rounded-md border border-rule bg-raised px-2 placeholder:text-ink-faint focus:border-lagoon"
      />
      <datalist id={list}>
        {known.map((group) => (
          <option key={group} value={group} />
        ))}
      </datalist>
    </Line>
  );
}
