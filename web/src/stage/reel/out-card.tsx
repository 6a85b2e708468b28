import {
  readEdl,
  readOtio,
  sendReel,
  writeCutsCsv,
  writeEdl,
  writeOtio,
  writeSrt,
  type BroughtReel,
} from '@eskovan/core/exchange';
import { hasStretch, type Join, type ShotBody } from '@eskovan/core/document';
import { frameTime } from '@eskovan/core/reel';
import { FileDown, FileUp, LayoutGrid } from 'lucide-react';
import { memo, useState } from 'react';
import { toast } from 'sonner';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, Menu, saveFile } from '../../kit/index.ts';
import { saidOf } from '../../worker/said.ts';
import { orderShots } from './edit-reel.ts';
import { sourceName, type OpenReel } from './open-reel.ts';
import type { ReelLink } from './reel-link.ts';
import { StoryboardDialog } from './storyboard-dialog.tsx';
import type { Ahead } from './use-ahead.ts';

interface OutCardProps {
  open: OpenReel;
  link: ReelLink | null;
  ahead: Ahead | null;
  /** null while it cannot be rendered yet. */
  onRender: (() => void) | null;
}

const fileName = (name: string, end: string) => `${name.replace(/[/\\:*?"<>|]/g, ' ').trim() || 'Reel'}.${end}`;

/** The reel for other programs and on paper, and an order that was made in one of them. */
export const OutCard = memo(function OutCard({ open, link, ahead, onRender }: OutCardProps) {
  const document = useProject();
  const [storyboard, setStoryboard] = useState(false);
  const { row, plan, shots } = open;
  const sent = () =>
    sendReel(
      row.name,
      plan,
      shots.map(({ id, name, body }) => ({ id, name, body, source: sourceName(document, body) })),
      row.body.markers,
    );
  const save = (text: string, type: string, end: string) =>
    saveFile(new Blob([text], { type }), fileName(row.name, end));
  const bring = async (file: File | undefined) => {
    if (!file) return;
    try {
      const text = await file.text();
      const brought = /\.edl$/i.test(file.name) ? readEdl(text, file.name, open.rate) : readOtio(text, file.name);
      takeOrder(open, brought);
    } catch (error) {
      toast.error(
        saidOf(error, `${file.name} could not be read. An OpenTimelineIO (.otio) or CMX 3600 (.edl) file would do.`),
      );
    }
  };
  return (
    <Card title="Out and in">
      <div className="flex flex-wrap gap-1.5">
        <Button small tone="primary" disabled={!onRender} onClick={() => onRender?.()}>
          Render reel
        </Button>
        <Button small icon={<LayoutGrid size={13} />} onClick={() => setStoryboard(true)}>
          Storyboard
        </Button>
        <Menu
          trigger={
            <Button small icon={<FileDown size={13} />}>
              Save as a list
            </Button>
          }
          items={[
            { label: 'OpenTimelineIO (.otio)', onSelect: () => save(writeOtio(sent()), 'application/json', 'otio') },
            {
              label: 'Edit decision list, CMX 3600 (.edl)',
              onSelect: () => save(writeEdl(sent()), 'text/plain', 'edl'),
            },
            { label: 'Cuts as a table (.csv)', onSelect: () => save(writeCutsCsv(sent()), 'text/csv', 'csv') },
            {
              label: 'Camera of every frame (.csv)',
              disabled: !link,
              onSelect: () => void link?.samplesCsv().then((text) => save(text, 'text/csv', 'camera.csv')),
            },
            {
              label: 'Captions (.srt)',
              disabled: !shots.some(({ body }) => body.caption),
              onSelect: () => save(writeSrt(sent()), 'application/x-subrip', 'srt'),
            },
          ]}
        />
        <label className="inline-flex h-7 cursor-pointer items-center gap-1.5 rounded-lg border border-rule bg-raised px-2 text-sm font-medium focus-within:outline-2">
          <FileUp size={13} aria-hidden /> Take an order from a list
          <input
            type="file"
            accept=".otio,.edl,application/json,text/plain"
            aria-label="List file"
            className="sr-only"
            onChange={(event) => {
              void bring(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
      </div>
      {storyboard && <StoryboardDialog open={open} link={link} ahead={ahead} onClose={() => setStoryboard(false)} />}
    </Card>
  );
});

/** Puts the shots into the order of a list, with its lengths and joins: found by what we wrote into it, else by name. */
function takeOrder(open: OpenReel, brought: BroughtReel): void {
  const left = [...open.shots];
  const ids: string[] = [];
  const bodies = new Map<string, ShotBody>();
  const unknown: string[] = [];
  for (const shot of brought.shots) {
    const same = (name: string) => name.trim().toLowerCase() === shot.name.trim().toLowerCase();
    const at = left.findIndex(({ id, name }) => (shot.id ? id === shot.id : same(name)));
    const found = at >= 0 ? at : left.findIndex(({ name }) => same(name));
    if (found < 0) {
      unknown.push(shot.name || 'without a name');
      continue;
    }
    const [row] = left.splice(found, 1);
    ids.push(row!.id);
    bodies.set(row!.id, broughtBody(row!.body, shot, brought));
  }
  if (ids.length === 0) {
    toast.error('None of its clips is called like a shot of this reel: nothing was changed.');
    return;
  }
  orderShots(open, `Order of ${brought.name}`, ids, bodies);
  const said = [
    `${ids.length} of ${brought.shots.length} clips put in order.`,
    ...(unknown.length > 0
      ? [
          `Not in this reel: ${unknown.slice(0, 5).join(', ')}${unknown.length > 5 ? ` and ${unknown.length - 5} more` : ''}.`,
        ]
      : []),
    ...(left.length > 0 ? [`${left.length} shots that it does not name stay at the end.`] : []),
    ...brought.leftOut,
  ];
  toast(said.join(' '), { duration: 9000 });
}

function broughtBody(
  body: ShotBody,
  { frames, overlap, join, from, speed }: BroughtReel['shots'][number],
  { rate }: BroughtReel,
): ShotBody {
  const { join: before, seconds: _, ...rest } = body;
  const kind: Join['kind'] | null = join ?? (overlap > 0 ? 'dissolve' : null);
  const joined: Join | null =
    kind &&
    (overlap > 0
      ? { kind, seconds: frameTime(overlap, rate) }
      : kind === 'dip'
        ? (before ?? { kind, seconds: 1 })
        : null);
  const length = frameTime(frames, rate);
  const own = joined ? { ...rest, join: joined } : rest;
  if (!hasStretch(body.use)) return { ...own, seconds: length };
  const stretch = length * Math.abs(speed);
  const first = frameTime(from, rate);
  const start = Math.max(0, speed < 0 ? first - stretch : first);
  const { backwards: __, ...use } = body.use;
  return {
    ...own,
    ...(Math.abs(Math.abs(speed) - 1) > 1e-6 && { seconds: length }),
    use: { ...use, from: start, to: start + stretch, ...(speed < 0 && { backwards: true as const }) },
  };
}
