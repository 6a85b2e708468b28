import type { Row, Title } from '@eskovan/core/document';
import { ImageUp } from 'lucide-react';
import { toast } from 'sonner';
import { editBody } from '../../data/edit-row.ts';
import { Button, Line, Segmented } from '../../kit/index.ts';
import { saidOf } from '../../worker/said.ts';
import { bringPicture } from './bring-file.ts';
import { setShot } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';

const GROUNDS: readonly { value: Title['ground']; label: string }[] = [
  { value: 'paper', label: 'Paper' },
  { value: 'ink', label: 'Ink' },
  { value: 'black', label: 'Black' },
];

/** The words of a card, and what they stand on. */
export function TitleFields({ open, row, title }: { open: OpenReel; row: Row<'shot'>; title: Title }) {
  const put = (change: Partial<Title>) =>
    setShot(open, row, 'Words', (body) =>
      body.use.kind === 'title' ? { ...body, use: { kind: 'title', title: { ...body.use.title, ...change } } } : body,
    );
  const field = 'w-full rounded-md border border-rule bg-raised px-1.5';
  const { logo } = open.row.body;
  const bringLogo = async (file: File | undefined) => {
    if (!file) return;
    try {
      const kept = await bringPicture(file);
      editBody('reel', open.row, 'Logo of the reel', (body) => ({ ...body, logo: kept }));
      put({ logo: true });
    } catch (error) {
      toast.error(saidOf(error, `${file.name} could not be read as a picture. A PNG, JPEG, WebP or SVG would do.`));
    }
  };
  return (
    <div className="grid gap-1.5">
      <input
        aria-label="Heading"
        key={`heading ${row.id} ${title.heading}`}
        defaultValue={title.heading}
        maxLength={200}
        placeholder="Heading"
        className={`h-7.5 font-medium ${field}`}
        onBlur={(event) => event.target.value !== title.heading && put({ heading: event.target.value })}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
      <textarea
        aria-label="Text of the card"
        key={`text ${row.id} ${title.text}`}
        defaultValue={title.text}
        maxLength={1000}
        rows={2}
        placeholder="Below it"
        className={`resize-y py-1 ${field}`}
        onBlur={(event) => event.target.value !== title.text && put({ text: event.target.value })}
      />
      <Segmented
        label="Ground of the card"
        value={title.ground}
        options={GROUNDS}
        onChange={(ground) => put({ ground })}
      />
      <Segmented
        label="Where the words stand"
        value={title.align}
        options={[
          { value: 'middle', label: 'Middle' },
          { value: 'left', label: 'Left' },
        ]}
        onChange={(align) => put({ align })}
      />
      <Line label="Logo">
        <span className="flex gap-1.5">
          {logo && (
            <Button
              small
              pressed={title.logo ?? false}
              onClick={() => put(title.logo ? { logo: undefined as never } : { logo: true })}
            >
              Show it
            </Button>
          )}
          <label className="inline-flex h-7 cursor-pointer items-center gap-1.5 rounded-lg border border-rule bg-raised px-2 text-sm font-medium focus-within:outline-2">
            <ImageUp size={13} aria-hidden /> {logo ? 'Another' : 'Bring in'}
            <input
              type="file"
              accept="image/*"
              aria-label="Logo file"
              className="sr-only"
              onChange={(event) => void bringLogo(event.target.files?.[0])}
            />
          </label>
        </span>
      </Line>
    </div>
  );
}
