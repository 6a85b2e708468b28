import { Vector3 } from 'three';
import type { Bounds, ModelBody, Placement, Vec3 } from '../document/index.ts';
import { placeBounds, placementMatrix } from './placement.ts';

/** A model whose middle lies farther than this from the project's zero is brought near it, metres. */
const FAR = 1000;
/** Models whose own coordinates put them within this of each other belong to one place, metres. */
const ONE_PLACE = 20_000;

interface Placed {
  bounds: Bounds;
  declares: ModelBody['declares'];
  placement: Placement;
}

const middleOf = ({ min, max }: Bounds): Vec3 => [0, 1, 2].map((k) => (min[k]! + max[k]!) / 2) as Vec3;
const distance = (a: Bounds, b: Bounds) => {
  const [p, q] = [middleOf(a), middleOf(b)];
  return Math.hypot(p[0] - q[0], p[2] - q[2]);
};

/**
 * Where a new model goes: models of one building line up by their own coordinates, or by their place on a map where both
 * say it; a first model of far coordinates is brought to the project's zero, and its offset is kept in its placement.
 * @param guess unit and up axis; its position is not used
 * @param others the models that are there already
 */
export function lineUp(
  bounds: Bounds,
  declares: ModelBody['declares'],
  guess: Placement,
  others: readonly Placed[],
): Placement {
  const onMap = others.find((other) => other.declares.map && declares.map && differ(other.declares.map, declares.map));
  if (onMap) return byMap(declares.map!, guess, onMap);
  const alone: Placement = { ...guess, position: [0, 0, 0] };
  const own = placeBounds(bounds, alone);
  for (const { placement, bounds: theirs } of others) {
    const beside: Placement = { ...guess, turn: placement.turn, position: placement.position };
    if (placement.position.every((value) => value === 0)) continue;
    if (distance(placeBounds(bounds, beside), placeBounds(theirs, placement)) < ONE_PLACE) return beside;
  }
  if (others.length > 0 && Math.hypot(middleOf(own)[0], middleOf(own)[2]) < ONE_PLACE) return alone;
  const [x, , z] = middleOf(own);
  if (Math.hypot(x, z) <= FAR && Math.abs(own.min[1]) <= FAR) return alone;
  // Whole metres: what is read off a plan in survey coordinates is then found again by adding round numbers.
  const height = Math.abs(own.min[1]) > FAR ? -Math.round(own.min[1]) : 0;
  return { ...guess, position: [-Math.round(x), height, -Math.round(z)] };
}

type MapPlace = NonNullable<ModelBody['declares']['map']>;

const differ = (a: MapPlace, b: MapPlace) =>
  a.east !== b.east || a.north !== b.north || a.height !== b.height || a.turn !== b.turn;

/** Both say where their zero is on the same map: the new one goes where the map puts it beside the other. */
function byMap(map: MapPlace, guess: Placement, { declares, placement }: Placed): Placement {
  const first = declares.map!;
  const turn = placement.turn - first.turn;
  const apart = new Vector3(map.east - first.east, map.height - first.height, -(map.north - first.north));
  apart.applyMatrix4(placementMatrix({ metresPerUnit: 1, up: 'y', turn, position: placement.position }));
  return { ...guess, turn: turn + map.turn, position: apart.toArray() };
}

/**
 * What a file's own zero is, seen from the project: its coordinates of the project's zero, metres, y up. Nothing where the
 * model lies at its own coordinates.
 */
export function ownOffset(placement: Placement): Vec3 | null {
  const [x, y, z] = placement.position;
  return Math.hypot(x, y, z) > FAR ? [-x, -y, -z] : null;
}
