import type { Vec3 } from '../document/index.ts';
import type { CompiledMove, Looked } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import { finding, type Finding } from './finding.ts';

/** A move is looked at so often, seconds, and at no more instants than so many. */
const INSTANT = 0.1;
const MOST = 600;
/** Apart from each other by less, two stretches are one, seconds. */
const JOINED = 0.5;
/** Beyond the edge by no more than this part of half a frame it is not seen to be cut. */
const UNSEEN = 0.005;

/** Where what is meant to be seen as a whole leaves the frame, and by how much. Reads samples only. */
export function frameFindings(move: CompiledMove, aspect: number): Finding[] {
  return move.looks.flatMap((look) => (look.corners ? cutsOf(move, look, look.corners, aspect) : []));
}

function cutsOf(move: CompiledMove, look: Looked, corners: NonNullable<Looked['corners']>, aspect: number): Finding[] {
  const steps = Math.max(1, Math.min(MOST, Math.ceil((look.to - look.from) / INSTANT)));
  const found: Finding[] = [];
  let cut = 0;
  for (let i = 0; i <= steps; i += 1) {
    const time = look.from + ((look.to - look.from) * i) / steps;
    const { view, position, orientation } = move.sampleAt(time);
    const camera = new Projection(view, aspect, position, orientation);
    const now = look.at(time);
    let beyond = 0;
    let point: Vec3 | null = null;
    for (const corner of corners) {
      const place = now.map((value, k) => value + corner[k]!) as Vec3;
      const seen = camera.project(place);
      const off = seen ? Math.max(Math.abs(seen.x), Math.abs(seen.y)) - 1 : 1;
      if (off > Math.max(beyond, UNSEEN)) [beyond, point] = [off, place];
    }
    if (!point) continue;
    cut += 1;
    const last = found.at(-1);
    if (last && time - last.to < JOINED) {
      last.to = time;
      if (beyond > last.worst!) Object.assign(last, { worst: beyond, at: time, point });
    } else
      found.push(
        finding({
          rule: 'out of frame',
          severity: 'note',
          from: time,
          to: time,
          at: time,
          worst: beyond,
          limit: 0,
          point,
        }),
      );
  }
  // What is cut all the time is a close-up, and meant.
  return cut > steps ? [] : found;
}
