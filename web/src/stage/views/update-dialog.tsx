import type { Row } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { useEffect, useState } from 'react';
import { fileUrl } from '../../data/api.ts';
import { Button, Dialog, useObjectUrl } from '../../kit/index.ts';
import { drawStill } from '../../picture/client.ts';
import { sizeAcross } from '../../picture/source.ts';
import { updateView } from '../shared/keep-view.ts';

interface UpdateDialogProps {
  row: Row<'view'>;
  sample: CameraSample;
  aspect: number;
  onClose: () => void;
}

const WIDTH = 480;

/** Before a view becomes something else: both pictures beside each other. */
export function UpdateDialog({ row, sample, aspect, onClose }: UpdateDialogProps) {
  const [after, setAfter] = useState<Blob | null>(null);
  useEffect(() => {
    let gone = false;
    drawStill(sample, sizeAcross(WIDTH, aspect), 4)
      .then((blob) => void (gone || setAfter(blob)))
      // Without a picture the question can still be answered: what is seen is behind the dialog.
      .catch(() => {});
    return () => void (gone = true);
  }, [sample, aspect]);
  const afterUrl = useObjectUrl(after);
  const { thumbnail } = row.body;
  return (
    <Dialog open onClose={onClose} title={`Update ${row.name}?`}>
      <div className="grid grid-cols-2 gap-3">
        <Side label="Before" url={thumbnail && fileUrl(thumbnail.sha256)} aspect={aspect} />
        <Side label="After" url={afterUrl} aspect={aspect} />
      </div>
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button
          tone="primary"
          autoFocus
          onClick={() => {
            updateView(row, sample);
            onClose();
          }}
        >
          Update
        </Button>
      </div>
    </Dialog>
  );
}

function Side({ label, url, aspect }: { label: string; url: string | null; aspect: number }) {
  return (
    <figure>
      <div className="w-full overflow-hidden rounded-md bg-surround" style={{ aspectRatio: aspect }}>
        {url && <img src={url} alt={label} className="h-full w-full object-cover" />}
      </div>
      <figcaption className="mt-1 text-sm text-ink-soft">{label}</figcaption>
    </figure>
  );
}
