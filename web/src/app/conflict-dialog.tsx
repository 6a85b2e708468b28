import type { Conflict } from '../data/outbox.ts';
import { resolveConflict, useEdits } from '../data/edits.ts';
import { Button, Dialog } from '../kit/index.ts';

const when = (iso: string) =>
  new Date(iso).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', second: '2-digit' });

function mineOf(conflict: Conflict): string {
  const { change } = conflict.entry;
  if (change.op === 'delete') return 'You deleted it.';
  if (change.op !== 'change') return 'You made it.';
  return `You changed its ${Object.keys(change.values)
    .map((key) => (key === 'body' ? 'content' : key))
    .join(' and ')}.`;
}

/** Two people changed one thing: shows both and loses neither. */
export function ConflictDialog() {
  const conflict = useEdits((state) => state.conflicts[0]);
  if (!conflict) return null;
  const { theirs } = conflict;
  const decide = (decision: 'mine' | 'theirs' | 'both') => void resolveConflict(conflict, decision);
  return (
    <Dialog
      open
      // Closing without a decision would leave edits unsaved: it keeps both.
      onClose={() => decide('both')}
      title={theirs ? `“${theirs.name}” was changed elsewhere` : 'This was deleted elsewhere'}
      description="While you worked on it, somebody else saved another version. Nothing is lost until you decide."
    >
      <dl className="mb-4 grid grid-cols-2 gap-3">
        <div className="rounded-[10px] border border-rule p-3">
          <dt className="font-semibold">Yours</dt>
          <dd className="text-ink-soft">{mineOf(conflict)}</dd>
        </div>
        <div className="rounded-[10px] border border-rule p-3">
          <dt className="font-semibold">Theirs</dt>
          <dd className="text-ink-soft">
            {theirs ? `Saved at ${when(theirs.updated)} as “${theirs.name}”.` : 'It is gone.'}
          </dd>
        </div>
      </dl>
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={() => decide('theirs')}>Take theirs</Button>
        {theirs && <Button onClick={() => decide('mine')}>Keep mine instead</Button>}
        <Button tone="primary" onClick={() => decide('both')}>
          Keep both
        </Button>
      </div>
    </Dialog>
  );
}
