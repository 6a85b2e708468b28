import { Check, CloudOff, Loader, TriangleAlert } from 'lucide-react';
import { retrySaving, useEdits } from '../data/edits.ts';
import { Button } from '../kit/index.ts';

/** Says at every moment whether what was made is safe. */
export function SavedNote() {
  const saved = useEdits((state) => state.saved);
  const note = 'flex items-center gap-1.5 whitespace-nowrap text-ink-faint';
  return (
    <div role="status" aria-label="Saved state" data-saved={saved.state}>
      {saved.state === 'saved' && (
        <span className={note}>
          <Check size={13} aria-hidden /> Saved
        </span>
      )}
      {saved.state === 'saving' && (
        <span className={note}>
          <Loader size={13} aria-hidden /> Saving…
        </span>
      )}
      {saved.state === 'offline' && (
        <span
          className={note}
          title="The server does not answer. Your changes are kept on this machine and saved as soon as it does."
        >
          <CloudOff size={13} aria-hidden /> Kept here, waiting for the server
        </span>
      )}
      {saved.state === 'conflict' && (
        <span className="flex items-center gap-1.5 font-medium text-madder">
          <TriangleAlert size={13} aria-hidden /> Changed elsewhere too
        </span>
      )}
      {saved.state === 'refused' && (
        <span className="flex items-center gap-2 font-medium text-madder" title={saved.message}>
          <TriangleAlert size={13} aria-hidden /> Not saved
          <Button small onClick={retrySaving}>
            Try again
          </Button>
        </span>
      )}
    </div>
  );
}
