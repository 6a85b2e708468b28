import type { Row } from '@eskovan/core/document';
import { useState } from 'react';
import { Line, Select } from '../../kit/index.ts';
import { STATUS } from './about-view-card.tsx';

type Group = 'all' | 'chosen' | 'ready' | 'approved';

/** Which of the views are meant: all, the chosen ones, or those that have come so far. */
export function useWhichViews(views: readonly Row<'view'>[], chosen: readonly Row<'view'>[]) {
  const [which, setWhich] = useState<Group>(chosen.length > 1 ? 'chosen' : 'all');
  const rows: Record<Group, readonly Row<'view'>[]> = {
    all: views,
    chosen,
    ready: views.filter(({ body }) => body.status === 'ready'),
    approved: views.filter(({ body }) => body.status === 'approved'),
  };
  return { which, setWhich, rows: rows[which] };
}

const OPTIONS: readonly { value: Group; label: string }[] = [
  { value: 'all', label: 'All views' },
  { value: 'chosen', label: 'The chosen ones' },
  { value: 'ready', label: `${STATUS.ready} ones` },
  { value: 'approved', label: `${STATUS.approved} ones` },
];

export function WhichViews({ which, setWhich }: Pick<ReturnType<typeof useWhichViews>, 'which' | 'setWhich'>) {
  return (
    <Line label="Views">
      <Select label="Which views" value={which} options={OPTIONS} onChange={setWhich} />
    </Line>
  );
}
