import type { Clash } from '@eskovan/core/document';
import { canKeepBoth, held, keepBoth, useEdits } from '../data/edits.ts';
import type { Conflict } from '../data/outbox.ts';
import { Button, Dialog } from '../kit/index.ts';
import { facetInWords, valueInWords } from '../stage/shared/describe-change.ts';
import { useHeldDialogs } from '../stage/shared/held-dialogs.ts';

const when = (iso: string) =>
  new Date(iso).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', second: '2-digit' });

/** Two people changed one thing: says what happened, shows both, loses neither. */
export function ConflictDialog() {
  const conflict = useEdits((state) => state.conflicts[0]);
  const postponed = useHeldDialogs((state) => state.postponed);
  if (!conflict || postponed) return null;
  const { clashes, rows } = conflict;
  const [first] = clashes;
  const row = rows.find(({ row: one }) => one.id === first?.id)?.row;
  const what = row ? `“${row.name}”` : `This ${first?.kind ?? 'thing'}`;
  const deleted = clashes.some(({ reason }) => reason === 'deleted');
  const missing = clashes.some(({ reason }) => reason === 'missing' || reason === 'there');
  // Putting it off decides nothing: the rest goes on being saved.
  const later = () => useHeldDialogs.setState({ postponed: true });
  return (
    <Dialog
      open
      onClose={later}
      title={
        missing
          ? `${what} is not there any more`
          : deleted
            ? `${what} was deleted elsewhere`
            : `${what} was changed elsewhere`
      }
      description={
        deleted
          ? 'While you worked on it, somebody deleted it. Bring it back with your change, or let it go.'
          : 'While you worked on it, somebody else saved another version of the same. Nothing is lost until you decide.'
      }
    >
      <dl className="mb-4 grid grid-cols-2 gap-3">
        <div className="min-w-0 rounded-[10px] border border-rule p-3">
          <dt className="font-semibold">Yours</dt>
          <dd className="mb-1 text-ink-soft">{conflict.entry.edit.label}</dd>
          {clashes.map((clash, i) => (
            <Value key={i} clash={clash} value={mine(conflict, clash)} />
          ))}
        </div>
        <div className="min-w-0 rounded-[10px] border border-rule p-3">
          <dt className="font-semibold">Theirs</dt>
          <dd className="mb-1 text-ink-soft">{since(first)}</dd>
          {!missing && !deleted && clashes.map((clash, i) => <Value key={i} clash={clash} value={clash.current} />)}
        </div>
      </dl>
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={() => held.decide(conflict, 'theirs')}>
          {deleted || missing ? 'Let it go' : 'Keep theirs'}
        </Button>
        {!missing && (
          <Button tone={canKeepBoth(conflict) ? 'plain' : 'primary'} onClick={() => held.decide(conflict, 'mine')}>
            {deleted ? 'Bring it back with mine' : 'Keep mine'}
          </Button>
        )}
        {canKeepBoth(conflict) && (
          <Button tone="primary" onClick={() => keepBoth(conflict)}>
            Keep both
          </Button>
        )}
      </div>
    </Dialog>
  );
}

function Value({ clash, value }: { clash: Clash; value: unknown }) {
  if (!clash.facet) return null;
  return (
    <dd className="text-sm break-words">
      <span className="text-ink-faint">{facetInWords(clash.facet)}: </span>
      {valueInWords(value)}
    </dd>
  );
}

function mine({ entry }: Conflict, clash: Clash): unknown {
  const change = [...entry.edit.changes]
    .reverse()
    .find((one) => one.op === 'set' && one.id === clash.id && one.facet.join('\n') === clash.facet?.join('\n'));
  return change?.op === 'set' ? change.after : undefined;
}

function since(clash: Clash | undefined): string {
  if (!clash?.since) return clash?.reason === 'missing' ? 'Nobody knows it.' : 'Saved in the meantime.';
  const { by, label, at } = clash.since;
  return `${by}, at ${when(at)}: ${label}`;
}
