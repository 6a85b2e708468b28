import type { Vec3 } from '../document/index.ts';
import { SURFACE, type Footing } from '../survey/index.ts';
import type { PlanLine } from './floor-line.ts';
import { tableAt, type UniformTable } from './uniform-table.ts';

/** Heights of a body that must pass, as parts of its eye height: knee and shoulder (common practice, no source). */
export const KNEE = 0.28;
const SHOULDER = 0.86;
/** Eye, shoulder and knee over the floor, metres. */
export const bodyHeights = (eyeHeight: number): Vec3 => [eyeHeight, SHOULDER * eyeHeight, KNEE * eyeHeight];

/** The body is moved along in pieces of this length, metres. */
const PIECE = 0.2;
/** What is met again within this length is one thing: both faces of a wall. Metres. */
const SAME_THING = 0.6;

/** What a path goes through. */
export type ObstacleKind = 'wall' | 'closed door' | 'glass' | 'low';

export interface Obstacle {
  /** low: only what is no higher than a knee's way, like a table or a parapet. */
  kind: ObstacleKind;
  /** Stations, metres. */
  from: number;
  to: number;
  /** It reaches down to the knee: nothing that hangs from above. */
  knee: boolean;
  /** Where it is met first, metres. */
  point: [number, number, number];
}

/**
 * What the body of a walker goes through on its way, found by lines at knee, shoulder and eye height.
 * @param floorLine the line of the head without the eye height
 */
export function findObstacles(
  line: PlanLine,
  footing: Footing,
  floorLine: UniformTable,
  eyeHeight: number,
): Obstacle[] {
  if (!footing.knowsSolids) return [];
  const pieces = Math.max(1, Math.ceil(line.length / PIECE));
  const stations = Float64Array.from({ length: pieces + 1 }, (_, i) => (line.length * i) / pieces);
  const plan = new Float64Array(2 * stations.length);
  line.pointsAt(stations, plan);
  const base = stations.map((station) => tableAt(floorLine, station));
  const heights = bodyHeights(eyeHeight);
  const found: Thing[] = [];
  for (let i = 0; i < pieces; i += 1)
    for (const [k, height] of heights.entries()) {
      const a = [plan[2 * i]!, base[i]! + height, plan[2 * i + 1]!] as const;
      const b = [plan[2 * i + 2]!, base[i + 1]! + height, plan[2 * i + 3]!] as const;
      for (const { at, triangle } of footing.solids.between(a, b)) {
        const station = stations[i]! + (at * line.length) / pieces;
        let thing = found.at(-1);
        if (!thing || station - thing.to > SAME_THING) {
          const point = [0, 1, 2].map((n) => a[n]! + (b[n]! - a[n]!) * at) as [number, number, number];
          thing = {
            from: station,
            to: station,
            point,
            tall: false,
            knee: false,
            door: false,
            glass: false,
            solid: false,
          };
          found.push(thing);
        }
        thing.from = Math.min(thing.from, station);
        thing.to = Math.max(thing.to, station);
        if (k < 2) thing.tall = true;
        else thing.knee = true;
        const surface = footing.kindOf(triangle);
        if (surface === SURFACE.door) thing.door = true;
        else if (surface === SURFACE.glass) thing.glass = true;
        else thing.solid = true;
      }
    }
  return found.map(({ from, to, point, knee, tall, door, glass, solid }) => ({
    kind: door ? 'closed door' : !tall ? 'low' : glass && !solid ? 'glass' : 'wall',
    from,
    to,
    knee,
    point,
  }));
}

/** Something being met, and what is known of it so far. */
type Thing = Omit<Obstacle, 'kind'> & { tall: boolean; door: boolean; glass: boolean; solid: boolean };
