import { toast } from 'sonner';
import { held, useEdits } from '../../data/edits.ts';
import type { OutboxEntry } from '../../data/outbox-storage.ts';
import { Button, Dialog } from '../../kit/index.ts';
import { describeChange } from './describe-change.ts';

/** Edits that the server refused for good: looked at, copied, tried again or dropped. Everything else is saved. */
export function AsideDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const aside = useEdits((state) => state.aside);
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="Set aside"
      description="The server did not take these. They are kept here until you decide; everything else is saved."
    >
      <ul className="grid gap-3">
        {aside.map((entry) => (
          <Aside key={entry.edit.id} entry={entry} />
        ))}
      </ul>
    </Dialog>
  );
}

function Aside({ entry: { edit, at, aside } }: { entry: OutboxEntry }) {
  const copy = () =>
    void navigator.clipboard.writeText(JSON.stringify(edit, null, 2)).then(
      () => toast('Copied as text'),
      () => toast.error('The browser did not allow copying.'),
    );
  return (
    <li className="rounded-[10px] border border-rule p-3">
      <p className="flex items-baseline justify-between gap-3">
        <span className="font-semibold">{edit.label}</span>
        <span className="shrink-0 font-mono text-sm text-ink-faint">{new Date(at).toLocaleTimeString()}</span>
      </p>
      <p className="mb-1 text-madder">{aside?.message}</p>
      <ul className="mb-2 max-h-32 overflow-y-auto text-ink-soft">
        {edit.changes.slice(0, 20).map((change, i) => (
          <li key={i} className="truncate">
            {describeChange(change)}
          </li>
        ))}
        {edit.changes.length > 20 && <li>and {edit.changes.length - 20} more</li>}
      </ul>
      <div className="flex flex-wrap justify-end gap-2">
        <Button small onClick={copy}>
          Copy as text
        </Button>
        <Button small tone="danger" onClick={() => held.drop(edit.id)}>
          Drop it
        </Button>
        <Button small onClick={() => held.tryAgain(edit.id)}>
          Try again
        </Button>
      </div>
    </li>
  );
}
