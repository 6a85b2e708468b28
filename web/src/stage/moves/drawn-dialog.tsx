import type { Walk } from '@eskovan/core/document';
import { World } from '@eskovan/core/exchange';
import { DRAWN_FILES } from '@eskovan/core/format';
import type { Drawn } from '@eskovan/core/format/drawn';
import { laidOn, lengthOfPoints, pathFromPoints } from '@eskovan/core/path';
import { CUT_HEIGHT } from '@eskovan/core/survey';
import { FileUp, Route } from 'lucide-react';
import { useRef, useState, type ChangeEvent } from 'react';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, Line, NumberField, Select } from '../../kit/index.ts';
import type { SiteData } from '../../site/use-site.ts';
import { saidOf } from '../../worker/said.ts';
import { emptyWalk } from './edit-move.ts';
import { startGround } from './ground-worker.ts';

interface DrawnDialogProps {
  site: SiteData;
  /** In which storey of the plan a line without heights lies. */
  storey: number;
  onWalk: (body: Walk, name: string) => void;
  onClose: () => void;
}

/** A line that was drawn elsewhere becomes the path of a walk. */
export function DrawnDialog({ site, storey, onWalk, onClose }: DrawnDialogProps) {
  const { project, model } = useProject();
  const input = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState<{ file: string; drawn: Drawn } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [chosen, setChosen] = useState(0);
  /** Metres of a unit, where a person said so. */
  const [scale, setScale] = useState<number | null>(null);

  const open = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (!file) return;
    const ground = startGround();
    setTrouble(null);
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const drawn = await Promise.race([ground.remote.drawn(bytes, file.name), ground.stopped]);
      const longest = drawn.lines.reduce(
        (best, line, i) => (lengthOfPoints(line.points, line.closed) > lengthOf(drawn, best) ? i : best),
        0,
      );
      setRead({ file: file.name, drawn });
      setChosen(longest);
      setScale(null);
    } catch (error) {
      setRead(null);
      setTrouble(saidOf(error, `${file.name} could not be read. Choose a DXF, an SVG or a CSV.`));
    } finally {
      ground.stop();
    }
  };

  const line = read?.drawn.lines[chosen];
  const metresPerUnit = scale ?? read?.drawn.metresPerUnit ?? 1;
  const { min, max } = site.survey.bounds;
  const [placement] = liveRows(model).map(({ body }) => body.placement);
  const world = new World(placement);
  const isDxf = read?.file.toLowerCase().endsWith('.dxf') ?? false;
  const isSvg = read?.file.toLowerCase().endsWith('.svg') ?? false;
  const laid =
    line &&
    laidOn(
      line.points,
      metresPerUnit,
      // Drawings know a site as its file does, tables as the plan does, pictures not at all.
      isSvg ? null : isDxf ? ([x, y, z]) => world.placeFrom([x, -z, y]) : (point) => point,
      [min[0], min[2], max[0], max[2]],
    );
  const elevation = site.survey.storeys[Math.max(0, storey)]?.elevation ?? 0;
  const make = () => {
    if (!line || !laid || !read) return;
    const { footing } = site;
    const path = pathFromPoints(laid.points, {
      closed: line.closed,
      newId: () => crypto.randomUUID(),
      surface: (x, z, y) =>
        y === null ? footing.surfaceUnder(x, z, elevation + CUT_HEIGHT) : footing.surfaceNear(x, z, y),
    });
    const body = { ...(emptyWalk(project.body.eyeHeight) as Walk), path };
    onWalk(body, `${line.name} of ${read.file}`);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="A path from a drawing"
      description="A line of a DXF, an SVG or a CSV becomes the path of a walk."
    >
      {read && line && laid && (
        <div className="grid gap-1">
          <Line label="Line">
            <Select
              label="Line"
              value={String(chosen)}
              options={read.drawn.lines.slice(0, 200).map(({ name, points, closed }, i) => ({
                value: String(i),
                label: `${name}, ${(lengthOfPoints(points, closed) * metresPerUnit).toFixed(1)} m`,
              }))}
              onChange={(value) => setChosen(Number(value))}
            />
          </Line>
          <NumberField
            label="Its length"
            unit="m"
            measure="length"
            value={lengthOfPoints(line.points, line.closed) * metresPerUnit}
            step={1}
            min={0.1}
            max={100_000}
            onChange={(length) => setScale(length / lengthOfPoints(line.points, line.closed))}
          />
          <div role="status" className="mt-1 grid gap-1 text-sm text-ink-soft">
            {read.drawn.metresPerUnit === null && scale === null && (
              <p>The file does not say its unit: say how long the line is.</p>
            )}
            <p>
              {laid.moved
                ? 'It comes to the middle of the site; move and turn it there.'
                : 'It lies where its drawing says.'}
            </p>
            {read.drawn.leftOut.map((reason) => (
              <p key={reason}>{reason}</p>
            ))}
          </div>
        </div>
      )}
      {trouble && (
        <p role="alert" className="text-madder">
          {trouble}
        </p>
      )}
      <div className="mt-3 flex justify-end gap-2">
        <input
          ref={input}
          type="file"
          aria-label="File of lines"
          accept={DRAWN_FILES}
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => void open(event)}
        />
        <Button icon={<FileUp size={14} />} onClick={() => input.current?.click()}>
          {read ? 'Another file' : 'Choose a file'}
        </Button>
        <Button tone="primary" icon={<Route size={14} />} disabled={!laid} onClick={make}>
          Make the walk
        </Button>
      </div>
    </Dialog>
  );
}

const lengthOf = ({ lines }: Drawn, i: number) => lengthOfPoints(lines[i]!.points, lines[i]!.closed);
