import type { Row, ViewStatus } from '@eskovan/core/document';
import { History, Lock, LockOpen } from 'lucide-react';
import { useState } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { Button, Card, Line, Select } from '../../kit/index.ts';
import { GroupField } from './group-field.tsx';
import { TagsField } from './tags-field.tsx';

export const STATUS: Record<ViewStatus, string> = { draft: 'Draft', ready: 'Ready', approved: 'Approved' };
const OPTIONS = Object.entries(STATUS).map(([value, label]) => ({ value: value as ViewStatus, label }));

/** How far a view has come, what there is to say about it, and whether it may still be changed. */
export function AboutViewCard({ row, onEarlier }: { row: Row<'view'>; onEarlier: () => void }) {
  const { status = 'draft', note = '', locked = false } = row.body;
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    if (typed !== null && typed !== note) editBody('view', row, 'Note', (body) => ({ ...body, note: typed }));
    setTyped(null);
  };
  return (
    <Card
      title="This view"
      note={
        <Button
          small
          tone="quiet"
          icon={locked ? <Lock size={13} /> : <LockOpen size={13} />}
          pressed={locked}
          onClick={() => editBody('view', row, locked ? 'Unlock' : 'Lock', (body) => ({ ...body, locked: !locked }))}
        >
          {locked ? 'Locked' : 'Lock'}
        </Button>
      }
    >
      <Line label="Status">
        <Select
          label="Status"
          value={status}
          options={OPTIONS}
          onChange={(next) => editBody('view', row, 'Status', (body) => ({ ...body, status: next }))}
        />
      </Line>
      <GroupField rows={[row]} />
      <TagsField row={row} />
      <textarea
        aria-label="Note"
        placeholder="A note for the studio"
        rows={2}
        maxLength={2000}
        value={typed ?? note}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key !== 'Escape') return;
          setTyped(null);
        }}
        className="mt-1 w-full resize-none rounded-md border border-rule bg-raised px-2 py-1 placeholder:text-ink-faint focus:border-lagoon"
      />
      <Button small className="mt-1 w-full" icon={<History size={13} />} onClick={onEarlier}>
        As it was before
      </Button>
    </Card>
  );
}
