import { Check, CloudOff, Loader, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { useEdits } from '../../data/edits.ts';
import { Button, Hint } from '../../kit/index.ts';
import { AsideDialog } from './aside-dialog.tsx';
import { useHeldDialogs } from './held-dialogs.ts';

/** Says at every moment whether what was made is safe. */
export function SavedNote() {
  const saved = useEdits((state) => state.saved);
  const memoryOnly = useEdits((state) => state.memoryOnly);
  const aside = useEdits((state) => state.aside.length);
  const [looking, setLooking] = useState(false);
  const note = 'flex items-center gap-1.5 whitespace-nowrap text-ink-faint';
  const alarm = 'flex items-center gap-1.5 font-medium whitespace-nowrap text-madder';
  return (
    <div className="flex items-center gap-2">
      {memoryOnly && (
        <Hint text="This browser keeps nothing over a reload (a private window, or a full disk). Edits are saved on the server as always; wait for “Saved” before you close the page.">
          <button type="button" className="text-sm whitespace-nowrap text-ink-soft underline decoration-dotted">
            Kept in memory only
          </button>
        </Hint>
      )}
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
        {saved.state === 'aside' && (
          <span className={note}>
            <Check size={13} aria-hidden /> The rest is saved
          </span>
        )}
        {saved.state === 'conflict' && (
          <span className={alarm}>
            <TriangleAlert size={13} aria-hidden /> Changed elsewhere too
          </span>
        )}
        {saved.state === 'reload' && (
          <span className={alarm} title={saved.message}>
            <TriangleAlert size={13} aria-hidden /> This page is out of date
          </span>
        )}
      </div>
      {saved.state === 'conflict' && (
        <Button small onClick={() => useHeldDialogs.setState({ postponed: false })}>
          Decide
        </Button>
      )}
      {saved.state === 'reload' && (
        <Button small onClick={() => window.location.reload()}>
          Reload
        </Button>
      )}
      {aside > 0 && (
        <Button small tone="danger" onClick={() => setLooking(true)}>
          {aside} set aside
        </Button>
      )}
      <AsideDialog open={looking && aside > 0} onClose={() => setLooking(false)} />
    </div>
  );
}
