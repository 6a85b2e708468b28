import type { Path, Vec3 } from '../document/index.ts';
import { heightsOf, lengthOfPoints, PlanCurve } from '../path/index.ts';
import type { Footing, Walkway } from '../survey/index.ts';
import { divide, type WayWalker } from './band.ts';
import { findWay, type Bands, type FoundWay } from './find-way.ts';
import { passageAt } from './snap.ts';

/** Passages are looked for so often along a way, metres. */
const LOOKED = 0.4;
/** Passages nearer to each other than this are one, and so near to where one stays nothing is shut, metres. */
const APART = 0.9;
/** So many passages and legs of one way are gone round at most. */
const MOST_TRIED = 10;
/** Other ways that are shown at most. */
const MOST_WAYS = 3;
/** A way that is so many times as long is none that anybody takes. */
const LONGEST = 2.5;
/** Ways that are nowhere farther from each other than this are the same, metres. */
const SAME_WAY = 1.5;
/** What is to be gone round in the open lies between places so far apart, metres. */
const LONG_LEG = 2.5;

/**
 * Other ways through the same places: round each passage that the first way leads through, and round the middle of its
 * long legs; the shortest first. Those that go nearly the same way, into something or very far round are left out.
 * @param first a way that was found through the places
 */
export function otherWays(
  first: FoundWay,
  walkway: Walkway,
  places: readonly Vec3[],
  footing: Footing,
  walker: WayWalker,
  newId: () => string,
): FoundWay[] {
  const lines = [alongPath(first.path)];
  const isNew = (line: Float64Array) =>
    !lines.some((other) => farthest(line, other) < SAME_WAY && farthest(other, line) < SAME_WAY);
  // Straight from corner to corner they are known at once: only those that go another way are led clear of things.
  const tried = avoidable(first, footing)
    .slice(0, MOST_TRIED)
    .flatMap((place) => {
      const corners = cornersOf(walkway, places, place);
      const length = corners ? lengthOfPoints(corners, false) : Infinity;
      return corners && length <= LONGEST * first.length ? [{ place, corners, length }] : [];
    })
    .sort((a, b) => a.length - b.length);
  const bands: Bands = new Map();
  const kept: FoundWay[] = [];
  for (const { place, corners } of tried) {
    if (kept.length >= MOST_WAYS) break;
    if (!isNew(evenly(corners))) continue;
    const way = findWay(walkway, places, footing, walker, newId, { avoid: [place], bands });
    if (!way.found || !way.clear || way.shut.length > first.shut.length) continue;
    const line = alongPath(way.path);
    if (way.length > LONGEST * first.length || !isNew(line)) continue;
    lines.push(line);
    kept.push(way);
  }
  return kept.sort((a, b) => a.length - b.length);
}

/** The shortest way through places that does not lead over one, from corner to corner; null where there is none. */
function cornersOf(walkway: Walkway, places: readonly Vec3[], without: Vec3): Vec3[] | null {
  const all: Vec3[] = [];
  for (let i = 1; i < places.length; i += 1) {
    const leg = walkway.way(places[i - 1]!, places[i]!, [without]);
    if (!leg) return null;
    all.push(...leg);
  }
  return all;
}

/** Points of a line of corners, [x, z] in order, no farther apart than ways are looked at. */
const evenly = (corners: readonly Vec3[]): Float64Array =>
  Float64Array.from(divide(corners, LOOKED).flatMap(([x, , z]) => [x, z]));

/** Where a way may be kept from going: in its passages, and half-way between places that are far apart. */
function avoidable({ path, stops }: FoundWay, footing: Footing): Vec3[] {
  const curve = new PlanCurve(path);
  const point = new Float64Array(2);
  const stations = stops.map((node) => curve.nodeStations[node]!);
  const stays = stops.map((node) => path.nodes[node]!);
  const drawn = heightsOf(path, curve);
  const heightAt = (station: number) => footing.surfaceNear(point[0]!, point[1]!, drawn(station)) ?? drawn(station);
  const found: Vec3[] = [];
  const add = (x: number, y: number, z: number) => {
    const near = (other: { x: number; z: number }) => Math.hypot(other.x - x, other.z - z) < APART;
    if (!stays.some(near) && !found.some(([fx, fy, fz]) => Math.abs(fy - y) < 1 && near({ x: fx, z: fz })))
      found.push([x, y, z]);
  };
  for (let station = APART; station < curve.length - APART; station += LOOKED) {
    curve.pointAt(station, point);
    const y = heightAt(station);
    const passage = passageAt(footing, point[0]!, y, point[1]!);
    if (passage) add(passage.x, y, passage.z);
  }
  stations.slice(1).forEach((station, i) => {
    if (station - stations[i]! < LONG_LEG) return;
    const middle = (station + stations[i]!) / 2;
    curve.pointAt(middle, point);
    add(point[0]!, heightAt(middle), point[1]!);
  });
  return found;
}

/** Points of a path, [x, z] in order. */
function alongPath(path: Path): Float64Array {
  const curve = new PlanCurve(path);
  const count = Math.max(1, Math.ceil(curve.length / LOOKED));
  const line = new Float64Array(2 * (count + 1));
  curve.pointsAt(
    Float64Array.from({ length: count + 1 }, (_, i) => (curve.length * i) / count),
    line,
  );
  return line;
}

/** The point of one line that is farthest from all points of another one, metres. */
function farthest(line: Float64Array, other: Float64Array): number {
  let most = 0;
  for (let i = 0; i < line.length; i += 2) {
    let least = Infinity;
    for (let k = 0; k < other.length; k += 2)
      least = Math.min(least, Math.hypot(line[i]! - other[k]!, line[i + 1]! - other[k + 1]!));
    most = Math.max(most, least);
  }
  return most;
}
