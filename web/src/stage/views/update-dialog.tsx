import type { Row } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { useEffect, useState } from 'react';
import { fileUrl } from '../../data/api.ts';
import { Button, Dialog } from '../../kit/index.ts';
import { drawStill } from '../../picture/client.ts';
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
  const [after, setAfter] = useState<string | null>(null);
  useEffect(() => {
    let url: string | null = null;
    let gone = false;
    drawStill(sample, { width: WIDTH, height: Math.max(2, Math.round(WIDTH / aspect)) }, 4)
      .then((blob) => {
        if (gone) return;
        url = URL.createObjectURL(blob);
        setAfter(url);
      })
      // Without a picture the question can still be answered: what is seen is behind the dialog.
      .catch(() => {});
    return () => {
      gone = true;
      if (url) URL.revokeObjectURL(url);
    };
  }, [sample, aspect]);
  const { thumbnail } = row.body;
  return (
    <Dialog open onClose={onClose} title={`Update ${row.name}?`}>
      <div className="grid grid-cols-2 gap-3">
        <Side label="Before" url={thumbnail && fileUrl(thumbnail.sha256)} aspect={aspect} />
        <Side label="After" url={after} aspect={aspect} />
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
