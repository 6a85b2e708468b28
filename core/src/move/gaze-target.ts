import type { Gaze, GazeAlongLine, HeldGaze, Vec3 } from '../document/index.ts';
import { lookBetween } from '../gaze/index.ts';
import { PlanCurve, SpaceWay } from '../path/index.ts';
import type { Stretch, TargetOf } from './gaze-layers.ts';

/** Where what is looked at is as time goes on; null where it stays in one place. */
export function targetOver(gaze: HeldGaze, stretch: Stretch, targetOf: TargetOf): ((time: number) => Vec3) | null {
  switch (gaze.kind) {
    case 'object':
      return targetOf(gaze);
    case 'line':
      return alongLine(gaze, stretch);
    case 'point':
      return null;
  }
}

/** Does what is looked at go on while time does? Then a closed way does not end as it began. */
export const goesOn = (gaze: Gaze, targetOf: TargetOf): boolean =>
  gaze.kind === 'line' || (gaze.kind === 'object' && targetOf(gaze) !== null);

/** Evenly along a line from the beginning of a stretch to its end; before and after it at its ends. */
function alongLine({ path }: GazeAlongLine, { from, to }: Stretch): (time: number) => Vec3 {
  const curve = new PlanCurve(path);
  const { x, y, z } = path.nodes[0]!;
  // All nodes in one place: there it looks.
  if (!(curve.length > 0)) return () => [x, y, z];
  const way = new SpaceWay(path, curve);
  const place = new Float64Array(3);
  return (time) => {
    const part = to > from ? Math.min(1, Math.max(0, (time - from) / (to - from))) : 0;
    way.placeAt(part * way.length, place);
    return [place[0]!, place[1]!, place[2]!];
  };
}

/**
 * A gaze over a part of what it lay over: what it went through in time it goes through in the same places.
 * @param from @param to parts of its time, 0…1
 */
export function partOfGaze(gaze: Gaze, from: number, to: number): Gaze {
  if (gaze.kind === 'line') return { ...gaze, path: partOfLine(gaze.path, from, to) };
  if (gaze.kind !== 'recorded' || !(to > from)) return gaze;
  const { looks } = gaze;
  const lookAt = (at: number) => {
    const before = looks.findLast((look) => look.at <= at) ?? looks[0]!;
    const after = looks.find((look) => look.at > at) ?? looks.at(-1)!;
    return lookBetween(before, after, at);
  };
  const within = looks.filter(({ at }) => at > from && at < to);
  return {
    ...gaze,
    looks: [lookAt(from), ...within, lookAt(to)].map((look) => ({ ...look, at: (look.at - from) / (to - from) })),
  };
}

/** A part of a line: its nodes in between, and one at each end, which has the id of the node that is left out there. */
function partOfLine(path: LinePath, from: number, to: number): LinePath {
  const curve = new PlanCurve(path);
  if (!(curve.length > 0)) return path;
  const way = new SpaceWay(path, curve);
  const [start, end] = [from * way.length, to * way.length];
  const stations = path.nodes.map((_, i) => way.stationOfNode(i)!);
  const inside = path.nodes.filter((_, i) => stations[i]! > start && stations[i]! < end);
  const place = new Float64Array(3);
  const nodeAt = (station: number, like: LinePath['nodes'][number]) => {
    way.placeAt(station, place);
    return { ...like, x: place[0]!, y: place[1]!, z: place[2]! };
  };
  const before = path.nodes.findLast((_, i) => stations[i]! <= start) ?? path.nodes[0]!;
  const after = path.nodes.find((_, i) => stations[i]! >= end) ?? path.nodes.at(-1)!;
  return { ...path, nodes: [nodeAt(start, before), ...inside, nodeAt(end, after)] };
}

type LinePath = GazeAlongLine['path'];
