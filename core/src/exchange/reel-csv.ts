import { anglesOf, toDegrees } from '../geometry/index.ts';
import { frameTime, timecodeOf, type CompiledReel } from '../reel/index.ts';
import { writeTable } from './csv-table.ts';
import type { SentReel } from './sent-reel.ts';

/** The cuts of a reel as a table: when each shot begins and ends, what of what it shows, and how it is joined. */
export function writeCutsCsv({ shots, rate }: SentReel): string {
  return writeTable(
    shots.map(({ name, source, planned, body }) => ({
      number: planned.index + 1,
      name,
      shows: source,
      begins: timecodeOf(planned.start, rate),
      ends: timecodeOf(planned.start + planned.frames, rate),
      'first frame': planned.start,
      frames: planned.frames,
      'length (s)': frameTime(planned.frames, rate).toFixed(4),
      'from (s)': planned.from.toFixed(4),
      'to (s)': planned.to.toFixed(4),
      pace: (planned.backwards ? -planned.speed : planned.speed).toFixed(6),
      join: planned.join?.kind ?? 'cut',
      'shared frames': planned.overlap,
      caption: body.caption?.text ?? '',
      note: body.note ?? '',
    })),
  );
}

/** The camera of every frame as a table: metres, degrees, millimetres. Cards and pictures have none and leave their cells empty. */
export function writeSamplesCsv(reel: CompiledReel): string {
  const { frames, rate } = reel.plan;
  return writeTable(
    Array.from({ length: frames }, (_, frame) => {
      const sample = reel.frameAt(frame).layers.findLast((layer) => layer.sample)?.sample ?? null;
      const angles = sample && anglesOf(sample.orientation);
      const number = (value: number | undefined, digits: number) => (value === undefined ? '' : value.toFixed(digits));
      const view = sample?.view;
      return {
        frame,
        timecode: timecodeOf(frame, rate),
        'x (m)': number(sample?.position[0], 5),
        'y (m)': number(sample?.position[1], 5),
        'z (m)': number(sample?.position[2], 5),
        'pan (deg)': number(angles ? toDegrees(angles.pan) : undefined, 5),
        'tilt (deg)': number(angles ? toDegrees(angles.tilt) : undefined, 5),
        'roll (deg)': number(angles ? toDegrees(angles.roll) : undefined, 5),
        'focal length (mm)': number(view?.kind === 'lens' ? view.focalLengthMm : undefined, 4),
        'picture height (m)': number(view?.kind === 'parallel' ? view.height : undefined, 5),
        'focus (m)': number(view?.focus, 4),
        'f-number': number(view?.fNumber, 3),
      };
    }),
  );
}
