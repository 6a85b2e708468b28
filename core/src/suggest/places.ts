import type { Vec3 } from '../document/index.ts';
import type { Footing, Room } from '../survey/index.ts';
import type { LookRound } from './look-round.ts';

/** Places of a room that are tried, at most. */
const MOST = 28;
/** Rooms of fewer places are looked at more closely, this far beside each, metres. */
const FEW = 14;
const BESIDE = 0.45;
/** A floor is where the room's is, to this, metres. */
const SAME_FLOOR = 0.2;
/** Half the width of who stands there, and heights at which that must be free, metres. */
const BODY = 0.3;
const HEIGHTS = [0.3, 0.75, 1.3] as const;
const SIDES = 8;
/** Free over the eyes, metres. */
const OVER = 0.15;
/** Over the floor, metres: what lies lower is stepped on. */
const ON = 0.06;
/** Who looks from one place to another looks over what stands about, metres over the floor. */
const GLANCE = 1.9;

/** Places all over a room where somebody could stand: pairs of x and z. */
export function placesIn(look: LookRound, footing: Footing, { places, at }: Room): [number, number][] {
  const grid = Array.from({ length: places.length / 2 }, (_, i): [number, number] => [
    places[2 * i]!,
    places[2 * i + 1]!,
  ]);
  const all = grid.length === 0 ? [[at[0], at[2]] as [number, number]] : grid;
  if (all.length >= FEW) {
    const every = Math.max(1, all.length / MOST);
    return Array.from({ length: Math.min(MOST, all.length) }, (_, i) => all[Math.floor(i * every)]!);
  }
  const over = at[1] + GLANCE;
  const near = all.flatMap(([x, z]) =>
    [-1, 0, 1].flatMap((dx) =>
      [-1, 0, 1]
        .map((dz): [number, number] => [x + dx * BESIDE, z + dz * BESIDE])
        .filter(
          ([nx, nz]) =>
            (nx === x && nz === z) || (onFloor(footing, nx, nz, at[1]) && look.isFree([x, over, z], [nx, over, nz])),
        ),
    ),
  );
  return near;
}

const onFloor = (footing: Footing, x: number, z: number, floor: number): boolean => {
  const surface = footing.surfaceNear(x, z, floor);
  return surface !== null && Math.abs(surface - floor) < SAME_FLOOR;
};

/** May somebody stand there, with free room about the body and over the head? */
export function isClear(look: LookRound, footing: Footing, [x, y, z]: Vec3, eyeHeight: number): boolean {
  if (!onFloor(footing, x, z, y)) return false;
  if (!look.isFree([x, y + ON, z], [x, y + eyeHeight + OVER, z])) return false;
  for (const height of HEIGHTS)
    for (let side = 0; side < SIDES; side += 1) {
      const angle = (2 * Math.PI * side) / SIDES;
      if (!look.isFree([x, y + height, z], [x + BODY * Math.sin(angle), y + height, z + BODY * Math.cos(angle)]))
        return false;
    }
  return true;
}
