import type { Earlier, Row } from '@eskovan/core/document';
import { ArrowLeftRight, Eye } from 'lucide-react';
import { fileUrl } from '../../data/api.ts';
import { Button, Dialog } from '../../kit/index.ts';
import { lensText } from '../shared/lens-text.ts';
import { useEarlier } from './use-earlier.ts';
import { scoutAs } from './use-seen.ts';
import { stateOf } from './view-body.ts';

interface EarlierDialogProps {
  row: Row<'view'>;
  onClose: () => void;
  /** Puts an earlier one beside the view as it is. */
  onCompare: (states: readonly Row<'view'>[]) => void;
}

const TIME = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

/** What a view was before it was changed: to be compared with what it is, or looked at again. */
export function EarlierDialog({ row, onClose, onCompare }: EarlierDialogProps) {
  const { earlier, error } = useEarlier(row);
  return (
    <Dialog open onClose={onClose} title={`${row.name}, as it was`}>
      {error && <p role="alert">What was before could not be asked for: {error.message}</p>}
      {!error && !earlier && <p className="text-ink-soft">Looking back…</p>}
      {earlier?.length === 0 && (
        <p className="text-ink-soft">This view has been as it is since it was kept. Update it, and it is here.</p>
      )}
      <ol className="grid gap-2">
        {earlier?.map((one) => (
          <EarlierView
            key={one.until.seq}
            {...one}
            onLook={() => {
              scoutAs(one.row.body);
              onClose();
            }}
            onCompare={() => {
              onCompare([asEarlier(one), row]);
              onClose();
            }}
          />
        ))}
      </ol>
    </Dialog>
  );
}

/** A view as it was, told apart from what it is by its name. */
const asEarlier = ({ row, until }: Earlier<'view'>): Row<'view'> =>
  stateOf(row, `before ${until.seq}`, `${row.name}, before ${TIME.format(new Date(until.at))}`);

interface EarlierViewProps extends Earlier<'view'> {
  onLook: () => void;
  onCompare: () => void;
}

function EarlierView({ row: { body }, until, onLook, onCompare }: EarlierViewProps) {
  const when = TIME.format(new Date(until.at));
  return (
    <li className="flex items-center gap-3">
      <span className="flex h-[54px] w-24 shrink-0 items-center justify-center overflow-hidden rounded-md bg-surround">
        {body.thumbnail && <img src={fileUrl(body.thumbnail.sha256)} alt="" className="h-full w-full object-contain" />}
      </span>
      <span className="min-w-0 flex-1">
        <span className="block truncate font-medium">Until “{until.label}”</span>
        <span className="block truncate text-sm text-ink-faint">
          {until.by.name} · {when} · {lensText(body.lens)}
        </span>
      </span>
      <Button
        small
        icon={<Eye size={13} />}
        aria-label={`Look as it was until ${until.label}, ${when}`}
        onClick={onLook}
      >
        Look
      </Button>
      <Button
        small
        icon={<ArrowLeftRight size={13} />}
        aria-label={`Compare with what it was until ${until.label}, ${when}`}
        onClick={onCompare}
      >
        Compare
      </Button>
    </li>
  );
}
