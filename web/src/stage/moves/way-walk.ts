import {
  PACE_LIMITS,
  type GazeSpan,
  type Key,
  type Pause,
  type ProjectDocument,
  type Row,
  type Vec3,
  type Walk,
} from '@eskovan/core/document';
import { anglesOf } from '@eskovan/core/geometry';
import { LIFT_REACH } from '@eskovan/core/move';
import type { FoundWay } from '@eskovan/core/wayfind';
import type { SiteData } from '../../site/use-site.ts';
import { emptyWalk } from './edit-move.ts';

/** Somewhere that a way may lead through: a room, or where somebody stood for a view. */
export interface WayPlace {
  key: string;
  name: string;
  /** What it is, and on which storey. */
  about: string;
  /** On the floor, metres. */
  at: Vec3;
  /** Where a view looks, radians, and how high its eye is over the floor, metres; null for a room. */
  look: { pan: number; tilt: number; eye: number } | null;
}

/** A place of a way, and how long one stays there, seconds. */
export interface WayStop {
  id: string;
  place: WayPlace;
  pause: number;
}

/** Before and after a place of which one looks where its view does, metres along the path. */
const LOOK_BEFORE = 1.5;
const LOOK_AFTER = 0.8;
/** An eye lower or higher than a walker's by this sits, or stands on something, metres. */
const SEATED = 0.1;
/** An eye higher over its floor is no place to walk through, metres. */
const STANDING = 2.5;

/** Rooms, and views that are seen by somebody who stands on a floor. */
export function wayPlaces({ survey, footing }: SiteData, views: readonly Row<'view'>[]): WayPlace[] {
  const rooms = survey.storeys.flatMap((storey) =>
    storey.rooms.map(({ name, at }): WayPlace => {
      return { key: `room ${at.join(' ')}`, name, about: `Room, ${storey.name}`, at, look: null };
    }),
  );
  const stood = views.flatMap(({ id, name, body }): WayPlace[] => {
    const [x, y, z] = body.pose.position;
    const floor = footing.floors.floorBelow(x, z, y);
    if (!(y - floor < STANDING)) return [];
    const { pan, tilt } = anglesOf(body.pose.orientation);
    return [{ key: `view ${id}`, name, about: 'View', at: [x, floor, z], look: { pan, tilt, eye: y - floor } }];
  });
  return [...rooms, ...stood];
}

/** A walk along a way that was found: it stays where it is to stay, and looks there where a view looks. */
export function walkAlong({ project }: ProjectDocument, way: FoundWay, stops: readonly WayStop[]): Walk {
  const plain = emptyWalk(project.body.eyeHeight) as Walk;
  const nodeOf = (i: number) => way.path.nodes[way.stops[i]!]!.id;
  const pauses = stops.flatMap(({ pause }, i): Pause[] =>
    pause > 0 ? [{ id: crypto.randomUUID(), anchor: { by: 'node', node: nodeOf(i), offset: 0 }, seconds: pause }] : [],
  );
  const gazeSpans = stops.flatMap(({ place, pause }, i): GazeSpan[] => {
    if (!place.look || pause <= 0) return [];
    const anchor = (offset: number) => ({ by: 'node' as const, node: nodeOf(i), offset });
    return [
      {
        id: crypto.randomUUID(),
        from: anchor(-LOOK_BEFORE),
        to: anchor(LOOK_AFTER),
        gaze: { kind: 'bearing', pan: place.look.pan, tilt: place.look.tilt },
        handOver: 1.5,
      },
    ];
  });
  const lift = stops.flatMap(({ place }, i): Key[] => {
    const rise = place.look ? Math.round((place.look.eye - project.body.eyeHeight) * 100) / 100 : 0;
    if (Math.abs(rise) < SEATED) return [];
    const key = (offset: number, value: number): Key => {
      const anchor = { by: 'node' as const, node: nodeOf(i), offset };
      return { id: crypto.randomUUID(), anchor, value, ease: 'smooth' };
    };
    // One sits down on the last steps, and gets up on the first.
    return [
      ...(i > 0 ? [key(-LIFT_REACH, 0)] : []),
      key(0, rise),
      ...(i < stops.length - 1 ? [key(LIFT_REACH, 0)] : []),
    ];
  });
  // A way has bends where rooms have doors: nobody is turned through them in haste.
  const turning = Math.max(PACE_LIMITS.turning[0], project.body.limits.turnNote);
  return {
    ...plain,
    path: way.path,
    found: { places: stops.map(({ place }, i) => ({ node: nodeOf(i), name: place.name })) },
    pace: { ...plain.pace, turning, ...(pauses.length > 0 && { pauses }) },
    ...(gazeSpans.length > 0 && { gazeSpans }),
    ...(lift.length > 0 && { tracks: { lift } }),
  };
}
