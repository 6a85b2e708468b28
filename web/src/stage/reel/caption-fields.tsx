import type { Caption, Row } from '@eskovan/core/document';
import { Card, Segmented } from '../../kit/index.ts';
import { setShot } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';

const PLACES: readonly { value: Caption['place']; label: string }[] = [
  { value: 'lower third', label: 'Lower third' },
  { value: 'foot', label: 'Foot' },
  { value: 'head', label: 'Head' },
];

/** Words over the pictures of a shot. */
export function CaptionFields({ open, row }: { open: OpenReel; row: Row<'shot'> }) {
  const { caption } = row.body;
  const put = (change: Partial<Caption>) => {
    const next = { text: '', place: 'lower third' as const, ...caption, ...change };
    const text = next.text.trim();
    setShot(open, row, 'Caption', ({ caption: _, ...body }) => (text ? { ...body, caption: { ...next, text } } : body));
  };
  return (
    <Card title="Caption">
      <input
        aria-label="Caption of the shot"
        key={`${row.id} ${caption?.text ?? ''}`}
        defaultValue={caption?.text ?? ''}
        maxLength={300}
        placeholder="Words over the picture"
        className="h-7.5 w-full rounded-md border border-rule bg-raised px-1.5"
        onBlur={(event) => event.target.value.trim() !== (caption?.text ?? '') && put({ text: event.target.value })}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
      {caption && (
        <Segmented
          className="mt-1.5"
          label="Place of the caption"
          value={caption.place}
          options={PLACES}
          onChange={(place) => put({ place })}
        />
      )}
    </Card>
  );
}
