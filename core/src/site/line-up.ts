import { Vector3 } from 'three';
import type { Bounds, ModelBody, Placement, Vec3 } from '../document/index.ts';
import { middle } from '../geometry/index.ts';
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

const distance = (a: Bounds, b: Bounds) => {
  const [p, q] = [middle(a), middle(b)];
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
  if (others.length > 0 && Math.hypot(middle(own)[0], middle(own)[2]) < ONE_PLACE) return alone;
  return { ...guess, position: roundMiddle(own).map((value) => 0 - value) as Vec3 };
}

/** A whole-numbered place near the middle of what lies far from zero; zero along axes where it does not. */
function roundMiddle(own: Bounds): Vec3 {
  const [x, , z] = middle(own);
  const far = Math.hypot(x, z) > FAR;
  return [far ? Math.round(x) : 0, Math.abs(own.min[1]) > FAR ? Math.round(own.min[1]) : 0, far ? Math.round(z) : 0];
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
 * How a model of far coordinates is spoken of: where the project's zero is in the file, and a round place of the file from
 * which its position is counted. Metres, y up. Null for a model that lies at its own coordinates.
 */
export function ownOffset(bounds: Bounds, placement: Placement): { zero: Vec3; from: Vec3 } | null {
  const { position } = placement;
  if (Math.hypot(...position) <= FAR) return null;
  const zero = position.map((value) => 0 - value) as Vec3;
  return { zero, from: roundMiddle(placeBounds(bounds, { ...placement, position: [0, 0, 0] })) };
}
