import type { Glide } from '../document/index.ts';
import { paceProfile, timeAtStation, type PaceProfile } from '../pace/index.ts';
import { PlanCurve, SpaceWay, type HeightAt } from '../path/index.ts';
import type { Footing } from '../survey/index.ts';
import { stationOf, type AnchorTimes, type Channel } from '../track/index.ts';
import { clockOfWay } from './camera-tracks.ts';
import { paceItems } from './channel-items.ts';
import { heightChannel } from './height-channel.ts';
import { nodeAnchor } from './node-anchor.ts';
import type { MovePath } from './sample.ts';
import { TimedCamera, type TimedPlaces, type TimedSite } from './timed-camera.ts';
import { smoothTable, tableAt, type UniformTable } from './uniform-table.ts';
import { wayHeadings } from './way-headings.ts';

/** Ground under a glide is looked at so often, metres, and at no more places than so many. */
const GROUND_STEP = 0.25;
const MOST_STEPS = 4000;
/** A glide over the ground evens it out over a way as long as it is high, and never less than this, metres. */
const LEAST_EVEN = 1.5;

/** A camera that glides, ready to be asked. @throws RangeError when its path has fewer than two distinct nodes */
export function compileGlide(body: Glide, footing: Footing, site: TimedSite): TimedCamera {
  const curve = new PlanCurve(body.path);
  if (!(curve.length > 0)) throw new RangeError('a path needs two nodes in different places');
  const way = new SpaceWay(body.path, curve, heightsFor(body, curve, footing));
  const nodeAt = (id: string) => way.stationOfNode(body.path.nodes.findIndex((node) => node.id === id));
  const pace = paceProfile(body.pace, {
    length: way.length,
    stationOf: (anchor) => stationOf(anchor, nodeAt),
    headings: wayHeadings(body, {
      length: way.length,
      closed: way.closed,
      pointAt: (station, out) => curve.pointAt(way.planAt(station), out),
      directionAt: (station, out) => curve.directionAt(way.planAt(station), out),
    }),
  });
  const timeAt = (station: number) => timeAtStation(pace, station);
  const anchors: AnchorTimes = { duration: pace.duration, timeAt, stationOf: nodeAt };
  const start = new Float64Array(2);
  curve.directionAt(0, start);
  const places: TimedPlaces = {
    duration: pace.duration,
    loops: way.closed,
    placeAt: (time, out, at) => way.placeAt(pace.stationAt(time), out, at),
    keptAt: () => ({ pan: Math.atan2(-start[0]!, -start[1]!), tilt: 0 }),
    anchors,
    path: pathOf(body, way, pace),
    channels: glideChannels(body, way, pace, footing),
    clock: body.together && clockOfWay(pace),
    lost: pace.lost ?? 0,
  };
  // A direction of its own a glide has not: it looks along its way.
  const gaze = body.gaze.kind === 'kept' ? { kind: 'ahead' as const, distance: 2 } : body.gaze;
  return new TimedCamera({ ...body, gaze }, places, site);
}

function pathOf({ path }: Glide, way: SpaceWay, pace: PaceProfile): MovePath {
  const { curve } = way;
  const place = new Float64Array(3);
  return {
    length: way.length,
    closed: way.closed,
    topSpeed: pace.cruise,
    stationAt: (time) => pace.stationAt(time),
    timeAt: (station) => timeAtStation(pace, station),
    pointAt: (station, out) => curve.pointAt(way.planAt(station), out),
    placeAt: (station) => {
      way.placeAt(station, place);
      return [place[0]!, place[1]!, place[2]!];
    },
    anchorAt: (station) => nodeAnchor(path.nodes, (i) => way.stationOfNode(i)!, station),
    nearest: (x, z) => way.stationAt(curve.nearest(x, z).station),
  };
}

/** Where a glide is in the section. */
function heightsFor(body: Glide, curve: PlanCurve, footing: Footing): HeightAt | undefined {
  const { height, path } = body;
  if (height.by === 'drawn') return undefined;
  if (height.by === 'level') return () => height.height;
  return overGround(height, curve, footing, path.closed && path.nodes.length > 2);
}

/**
 * So much above the ground, evened out, and never nearer than the clearance to anything under it: the highest that is
 * wanted within a reach, averaged over the same reach, is nowhere lower than what is wanted.
 */
function overGround(
  { above, clearance }: { above: number; clearance: number },
  curve: PlanCurve,
  footing: Footing,
  closed: boolean,
): HeightAt {
  const steps = Math.min(MOST_STEPS, Math.max(16, Math.ceil(curve.length / GROUND_STEP)));
  const wanted = new Float64Array(steps + 1).fill(Number.NaN);
  const [point, direction] = [new Float64Array(2), new Float64Array(2)];
  for (let i = 0; i <= steps; i += 1) {
    const station = (curve.length * i) / steps;
    curve.pointAt(station, point);
    curve.directionAt(station, direction);
    const ground = footing.floors.floorBelow(point[0]!, point[1]!, Infinity);
    let top = -Infinity;
    for (const aside of [-0.5, 0, 0.5]) {
      const [x, z] = [point[0]! - aside * clearance * direction[1]!, point[1]! + aside * clearance * direction[0]!];
      top = Math.max(top, footing.topAt(x, z));
    }
    const needed = Math.max(ground + above, top + clearance);
    if (needed > -Infinity) wanted[i] = needed;
  }
  // Where there is nothing under it, it goes on as beside.
  const known = wanted.findIndex((value) => !Number.isNaN(value));
  if (known < 0) return () => above;
  for (let i = known - 1; i >= 0; i -= 1) wanted[i] = wanted[i + 1]!;
  for (let i = known + 1; i <= steps; i += 1) if (Number.isNaN(wanted[i]!)) wanted[i] = wanted[i - 1]!;
  const even = Math.min(Math.max(LEAST_EVEN, above), curve.length / 2);
  const table: UniformTable = {
    values: highestWithin(wanted, even, curve.length, closed),
    length: curve.length,
    closed,
  };
  const smooth = smoothTable(table, even);
  return (station) => tableAt(smooth, station);
}

/** The highest value within a reach to either side, and a step more: what is read between two values is beside them. */
function highestWithin(values: Float64Array, reach: number, length: number, closed: boolean): Float64Array {
  const last = values.length - 1;
  const wide = Math.min(last - 1, Math.max(1, Math.round((reach / length) * last)) + 1);
  return values.map((_, i) => {
    let highest = -Infinity;
    for (let k = i - wide; k <= i + wide; k += 1) {
      const at = closed ? ((k % last) + last) % last : Math.min(last, Math.max(0, k));
      highest = Math.max(highest, values[at]!);
    }
    return highest;
  });
}

/** The camera over what is under it, and how fast it goes. */
function glideChannels({ path, height }: Glide, way: SpaceWay, pace: PaceProfile, footing: Footing): Channel[] {
  const timeAt = (station: number) => timeAtStation(pace, station);
  const nodes = path.nodes.map(({ id, y }, i) => {
    const time = timeAt(way.stationOfNode(i)!);
    return { id, kind: 'pose' as const, from: time, to: time, value: y, about: `Node ${i + 1}` };
  });
  const placeAt = (time: number, out: Float64Array, at: number) => way.placeAt(pace.stationAt(time), out, at);
  return [
    heightChannel(footing, placeAt, height.by === 'drawn' ? { items: nodes } : {}),
    {
      id: 'pace',
      title: 'Pace',
      unit: 'm/s',
      at: (time) => pace.speedAt(time),
      items: paceItems(pace, timeAt),
    },
  ];
}
