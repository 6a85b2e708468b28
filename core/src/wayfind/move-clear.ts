import type { Path, PathNode, Vec3 } from '../document/index.ts';
import { profilePath, tableAt } from '../move/index.ts';
import { mainPoints, PlanCurve } from '../path/index.ts';
import type { Footing } from '../survey/index.ts';
import { drawBand, type WayWalker } from './band.ts';

/** A path is moved from so far before a place to so far behind it, metres. */
const AROUND = 1.6;
/** The line is taken at points so far apart, metres. */
const STEP = 0.15;
/** What bends less is drawn straight, metres; and how far corners are rounded. */
const STRAIGHT = 0.02;
const ROUNDING = 0.6;

/**
 * A path that keeps off from what it came too near to: the stretch about a place is drawn taut between its ends, clear
 * of what stands beside it. Nodes in it are moved along, so that what holds on to them goes with them; others are put in
 * where it bends.
 * @param from @param to stations of the narrow stretch, metres
 */
export function moveClear(
  path: Path,
  [from, to]: readonly [number, number],
  footing: Footing,
  walker: WayWalker,
  newId: () => string,
): Path {
  const curve = new PlanCurve(path);
  const { floor } = profilePath(path, curve, footing, walker);
  const [start, end] = [Math.max(0, from - AROUND), Math.min(curve.length, to + AROUND)];
  const count = Math.max(2, Math.ceil((end - start) / STEP));
  const point = new Float64Array(2);
  const line = Array.from({ length: count + 1 }, (_, i): Vec3 => {
    const station = start + ((end - start) * i) / count;
    curve.pointAt(station, point);
    return [point[0]!, tableAt(floor, station), point[1]!];
  });
  const band = drawBand(line, footing, { ...walker, leaves: true });
  // A point of the band stands for the same part of the stretch as before.
  const stationOf = (i: number) => start + ((end - start) * i) / (band.length - 1);
  const bandAt = (station: number) =>
    band[Math.round(((station - start) / (end - start)) * (band.length - 1))] ?? band.at(-1)!;
  const nodes: { station: number; node: PathNode }[] = path.nodes.map((node, i) => {
    const station = curve.nodeStations[i]!;
    if (station <= start || station >= end) return { station, node };
    const [x, y, z] = bandAt(station);
    return {
      station,
      node: { ...node, x, y, z, surface: true, kind: 'corner', radius: Math.min(node.radius, ROUNDING) },
    };
  });
  for (const i of mainPoints(band, STRAIGHT)) {
    const station = stationOf(i);
    // Where a node is already, it bends there.
    if (nodes.some((one) => Math.abs(one.station - station) < STEP)) continue;
    const [x, y, z] = band[i]!;
    const node: PathNode = { id: newId(), x, y, z, surface: true, kind: 'corner', radius: ROUNDING };
    nodes.push({ station, node });
  }
  return { ...path, nodes: nodes.sort((a, b) => a.station - b.station).map(({ node }) => node) };
}
