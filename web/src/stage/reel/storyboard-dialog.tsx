import { FileDown } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, Line, Progress, saveFile, Select } from '../../kit/index.ts';
import { PAPER_OPTIONS } from '../shared/papers.ts';
import { drawSheet, sheetPdf, sheetPng, type SheetItem } from '../shared/sheet-drawing.ts';
import { sourceName, type OpenReel } from './open-reel.ts';
import type { ReelLink } from './reel-link.ts';
import { useReelFacts } from './reel-facts.ts';
import { aheadSize, type Ahead } from './use-ahead.ts';
import { joinText, lengthText } from './words.ts';

interface StoryboardDialogProps {
  open: OpenReel;
  link: ReelLink | null;
  ahead: Ahead | null;
  onClose: () => void;
}

/** The reel on paper: of every shot its first, its middle and its last picture, with what is to be said of it. */
export function StoryboardDialog({ open, link, ahead, onClose }: StoryboardDialogProps) {
  const document = useProject();
  const keys = useReelFacts((state) => state.keys);
  const [paper, setPaper] = useState(PAPER_OPTIONS[2]!.value);
  const [done, setDone] = useState<number | null>(null);
  const { plan, shots, rate, row } = open;

  const pictures = async (): Promise<SheetItem[]> => {
    const items: SheetItem[] = [];
    for (const shot of plan.shots) {
      const { name, body } = shots[shot.index]!;
      const first = shot.start + shot.overlap;
      const last = shot.start + shot.frames - 1 - (plan.shots[shot.index + 1]?.overlap ?? 0);
      const notes = [
        `${lengthText(shot.frames, rate)} · ${sourceName(document, body) || 'card'}`,
        body.caption?.text ?? '',
        [shot.index > 0 ? `begins with a ${joinText(shot.join, shot.overlap, rate)}` : '', body.note ?? '']
          .filter(Boolean)
          .join(' · '),
      ];
      for (const [k, frame] of [first, Math.round((first + last) / 2), Math.max(first, last)].entries()) {
        const picture =
          ahead && link
            ? await ahead.desk.now({
                key: keys[frame] ?? `frame ${frame}`,
                size: aheadSize(open.aspect),
                picture: () => link.picture(frame),
              })
            : null;
        items.push({
          aspect: open.aspect,
          url: picture && URL.createObjectURL(picture),
          title: k === 0 ? `${shot.index + 1}  ${name}` : '',
          note: notes[k]!,
        });
      }
      setDone((shot.index + 1) / plan.shots.length);
    }
    return items;
  };
  const save = async (as: 'pdf' | 'png') => {
    setDone(0);
    try {
      const items = await pictures();
      const { paper: chosen } = PAPER_OPTIONS.find(({ value }) => value === paper)!;
      const order = {
        paper: chosen,
        columns: 3,
        rows: Math.max(2, Math.floor((chosen.height - 36) / ((chosen.width - 38) / 3 / open.aspect + 18))),
        heading: `${document.project.name} · ${row.name} · ${lengthText(plan.frames, rate)}`,
        items,
      };
      const pages = await drawSheet(order);
      items.forEach(({ url }) => url && URL.revokeObjectURL(url));
      if (as === 'pdf') saveFile(await sheetPdf(pages, order), `${row.name} storyboard.pdf`);
      else (await sheetPng(pages)).forEach((page, i) => saveFile(page, `${row.name} storyboard ${i + 1}.png`));
      onClose();
    } catch {
      toast.error('The storyboard could not be drawn: this browser ran out of memory. Try a smaller paper.');
    } finally {
      setDone(null);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Storyboard"
      description="Of every shot its first, its middle and its last picture, with lengths, joins, captions and notes."
    >
      <Line label="Paper">
        <Select label="Paper" value={paper} options={PAPER_OPTIONS} onChange={setPaper} />
      </Line>
      {done !== null && <Progress label="Drawing the storyboard" fraction={done} />}
      <div className="mt-3 flex gap-2">
        <Button
          tone="primary"
          icon={<FileDown size={14} />}
          disabled={done !== null || !link}
          onClick={() => void save('pdf')}
        >
          Save PDF
        </Button>
        <Button icon={<FileDown size={14} />} disabled={done !== null || !link} onClick={() => void save('png')}>
          Save PNG
        </Button>
      </div>
    </Dialog>
  );
}
