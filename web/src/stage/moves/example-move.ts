import type { Bounds, MoveBody, Vec3 } from '@eskovan/core/document';
import { middle } from '@eskovan/core/geometry';
import {
  exampleCarrier,
  examplePoses,
  exampleWalk,
  findCarrier,
  headingOf,
  seatAt,
  type CarrierSite,
} from '@eskovan/core/move';
import type { Survey } from '@eskovan/core/survey';
import { emptyGlide, emptyRide, emptyWalk, firstFollow, firstOrbit, firstTravel } from './edit-move.ts';

/** What examples are made of. */
export interface ExampleSite extends CarrierSite {
  /** Extent of what is worth seeing, metres. */
  extent: Bounds;
  storeys: Survey['storeys'];
  /** metres */
  eyeHeight: number;
}

/** How long an example takes, seconds. */
const SECONDS = 6;
/** What carries a camera is watched for longer: it may begin slowly. */
const WATCHED = 14;

/** A move of a kind that the project could have, to show what that is; null where it has nothing for it. */
export function exampleMove(kind: MoveBody['kind'], site: ExampleSite): MoveBody | null {
  const { extent } = site;
  const [far, near, low] = examplePoses(extent);
  const lens = firstOrbit(extent).lens;
  switch (kind) {
    case 'walk': {
      const way = exampleWalk(site.storeys);
      return way && { ...emptyWalk(site.eyeHeight), ...pathOf(way) };
    }
    case 'orbit':
      return firstOrbit(extent);
    case 'travel': {
      const first = firstTravel(far!, lens);
      const poses = [far!, low!].map((pose, i) => ({ ...first.poses[0]!, ...pose, id: `${i}`, time: i * SECONDS }));
      return { ...first, poses };
    }
    case 'glide':
      return {
        ...emptyGlide(extent),
        ...pathOf([far!, near!, low!].map(({ position }) => position)),
        gaze: { kind: 'point', point: middle(extent) },
        lens,
      };
    case 'ride':
    case 'follow': {
      const carried = exampleCarrier(site, WATCHED);
      if (!carried) return null;
      const { model, name, bounds } = carried;
      const centre = middle(bounds);
      const heading = headingOf(findCarrier({ model, name, centre }, site)) ?? [0, 0, -1];
      if (kind === 'ride')
        return {
          ...emptyRide(far!),
          carrier: { model, name, centre },
          ...seatAt('on it', bounds, heading, { model, name }),
          duration: WATCHED,
        };
      const size = Math.hypot(...bounds.max.map((value, k) => value - bounds.min[k]!));
      const beside = [0, 1, 2].map(
        (k) => carried.half[k]! + 2.5 * size * ([-heading[2], 0.35, heading[0]] as const)[k]!,
      ) as Vec3;
      return {
        ...firstFollow({ ...far!, position: beside }, lens),
        duration: WATCHED,
        gaze: { kind: 'object', model, name, point: centre, centre },
      };
    }
  }
}

const pathOf = (places: readonly Vec3[]) => ({
  path: {
    closed: false,
    nodes: places.map(([x, y, z], i) => ({ id: `${i}`, x, y, z, kind: 'smooth' as const, radius: 0.5 })),
  },
});
