import type { Path, Vec3 } from '../document/index.ts';
import { heightsOf, PlanCurve } from '../path/index.ts';
import { roomOfEye, type Room } from '../survey/index.ts';

/** Rooms are looked for so often along a way, metres; who is in one for less has only touched it. */
const LOOKED = 0.25;
const PASSED = 0.75;

/** Names of the rooms that a path on floors leads through, in its order; one that it comes back to is named again. */
export function roomsOnWay(
  path: Path,
  storeys: readonly { elevation: number; rooms: readonly Room[] }[],
  eyeHeight: number,
): string[] {
  const curve = new PlanCurve(path);
  if (!(curve.length > 0)) return [];
  const heightAt = heightsOf(path, curve);
  const point = new Float64Array(2);
  const names: string[] = [];
  let [name, since] = [null as string | null, 0];
  for (let station = 0; station <= curve.length + LOOKED; station += LOOKED) {
    const at = Math.min(station, curve.length);
    curve.pointAt(at, point);
    const eye: Vec3 = [point[0]!, heightAt(at) + eyeHeight, point[1]!];
    const now = roomOfEye(eye, storeys)?.name ?? null;
    if (now !== name) [name, since] = [now, at];
    if (name !== null && names.at(-1) !== name && (at - since >= PASSED || at >= curve.length)) names.push(name);
  }
  return names;
}
