import type { Row } from '@eskovan/core/document';
import { useState } from 'react';
import { Line, Select } from '../../kit/index.ts';
import { STATUS } from './about-view-card.tsx';
import { VIEW_GROUPS } from './view-body.ts';

/** Which views: all, the chosen ones, those that have come so far, or those of a group, by its name. */
type Which = 'all' | 'chosen' | 'ready' | 'approved' | `group ${string}`;

/** Some of the views: what was said first is all, or the chosen ones where several are. */
export function useWhichViews(views: readonly Row<'view'>[], chosen: readonly Row<'view'>[]) {
  const [which, setWhich] = useState<Which>(chosen.length > 1 ? 'chosen' : 'all');
  const groups = [...new Set(views.flatMap((row) => VIEW_GROUPS.of(row) ?? []))];
  const options: { value: Which; label: string }[] = [
    ...OPTIONS,
    ...groups.map((group) => ({ value: `group ${group}` as const, label: `In “${group}”` })),
  ];
  const rows = which === 'chosen' ? chosen : views.filter((row) => isOne(row, which));
  return { which, setWhich, rows, options };
}

function isOne(row: Row<'view'>, which: Which): boolean {
  if (which === 'all') return true;
  if (which === 'ready' || which === 'approved') return row.body.status === which;
  const group = VIEW_GROUPS.of(row);
  return group !== undefined && which === `group ${group}`;
}

const OPTIONS: readonly { value: Which; label: string }[] = [
  { value: 'all', label: 'All views' },
  { value: 'chosen', label: 'The chosen ones' },
  { value: 'ready', label: `${STATUS.ready} ones` },
  { value: 'approved', label: `${STATUS.approved} ones` },
];

export function WhichViews({ which, setWhich, options }: Omit<ReturnType<typeof useWhichViews>, 'rows'>) {
  return (
    <Line label="Views">
      <Select label="Which views" value={which} options={options} onChange={setWhich} />
    </Line>
  );
}
