import {
  DEFAULT_LENS,
  lengthUnitOf,
  METRES,
  type Bounds,
  type Key,
  type Lens,
  type MoveBody,
  type Path,
  type Pose,
  type Row,
  type TrackName,
  type Vec3,
  type Walk,
} from '@eskovan/core/document';
import { anglesOf, diagonalOf, middle } from '@eskovan/core/geometry';
import type { CompiledMove } from '@eskovan/core/move';
import { pathFault, type PathFault } from '@eskovan/core/path';
import { toast } from 'sonner';
import { editBody } from '../../data/edit-row.ts';

export type BodyOfKind<K extends MoveBody['kind']> = Extract<MoveBody, { kind: K }>;

/** A walk without a path yet. */
export function emptyWalk(eyeHeight: number): BodyOfKind<'walk'> {
  return {
    kind: 'walk',
    path: { nodes: [], closed: false },
    eyeHeight,
    pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
    gaze: { kind: 'ahead', distance: 2 },
    lens: DEFAULT_LENS,
  };
}

/** Once round a site, from far enough away to see it, until something of it is chosen. */
export function firstOrbit(site: Bounds): BodyOfKind<'orbit'> {
  const size = diagonalOf(site);
  return {
    kind: 'orbit',
    pivot: { kind: 'point', point: middle(site) },
    start: 0.6,
    sweep: 2 * Math.PI,
    inclination: 0.3,
    distance: { by: 'radius', radius: Math.max(0.01, 1.1 * size) },
    duration: 12,
    shape: 'constant',
    lens: { ...DEFAULT_LENS, focalLengthMm: 35 },
  };
}

/** A glide that is put above the ground is first so high above it, and keeps so far from what stands there, metres. */
export const firstAbove = (site: Bounds | null) => ({
  above: Math.min(6, site ? 0.8 * diagonalOf(site) : Infinity),
  clearance: Math.min(2, site ? 0.3 * diagonalOf(site) : Infinity),
});

/** A new corner is rounded by so much, metres: in a small thing by a part of it. */
export const firstRounding = (site: Bounds): number => Math.min(0.5, 0.1 * diagonalOf(site));

/** How far from its pivot an orbit begins, metres. */
export function radiusOf(move: CompiledMove, pivot: Vec3): number {
  const begin = move.path?.placeAt(0) ?? move.sampleAt(0).position;
  return Math.hypot(...begin.map((value, k) => value - pivot[k]!));
}

/** A travel that begins where the eye is. */
export function firstTravel({ position, orientation }: Pose, lens: Lens): BodyOfKind<'travel'> {
  const pose = { id: crypto.randomUUID(), time: 0, hold: 0, position, orientation, span: 'smooth' as const };
  return { kind: 'travel', poses: [pose], turning: 'level', ends: 'rest', gaze: { kind: 'kept' }, lens };
}

/** A glide without a path yet. */
/** A glide that has no way yet: through a building it looks along its way, past a product at that. */
export const emptyGlide = (site: Bounds): BodyOfKind<'glide'> => ({
  kind: 'glide',
  path: { nodes: [], closed: false },
  height: { by: 'drawn' },
  pace: { by: 'duration', speed: 2, duration: 10, shape: 'ease both' },
  gaze: lengthUnitOf(site) === METRES ? { kind: 'ahead', distance: 4 } : { kind: 'point', point: middle(site) },
  lens: DEFAULT_LENS,
});

/** A ride on nothing yet: it stays where the eye is. */
export function emptyRide({ position, orientation }: Pose): BodyOfKind<'ride'> {
  return {
    kind: 'ride',
    carrier: null,
    seat: position,
    facing: orientation,
    softness: 0,
    horizon: 'level',
    duration: 12,
    gaze: { kind: 'kept' },
    lens: DEFAULT_LENS,
  };
}

/** A camera that stands where the eye is, and looks as it does until it is given something to follow. */
export function firstFollow({ position, orientation }: Pose, lens: Lens): BodyOfKind<'follow'> {
  const { pan, tilt } = anglesOf(orientation);
  return { kind: 'follow', position, duration: 12, gaze: { kind: 'bearing', pan, tilt }, lens };
}

/** Changes a move of one kind; whatever has become of another kind meanwhile stays as it is. */
export function editMove<K extends MoveBody['kind']>(
  row: Row<'move'>,
  kind: K,
  label: string,
  change: (body: BodyOfKind<K>) => BodyOfKind<K>,
): void {
  editBody('move', row, label, (body) => (body.kind === kind ? change(body as BodyOfKind<K>) : body));
}

/** Changes what moves of several kinds have in common; one that has it not stays as it is. */
export function editShared<M extends keyof SharedMembers>(
  row: Row<'move'>,
  member: M,
  label: string,
  change: (body: Having<M>) => Having<M>,
): void {
  editBody('move', row, label, (body) => (member in body ? change(body as Having<M>) : body));
}
type SharedMembers = Pick<Walk, 'path' | 'pace' | 'gaze'>;
/** Moves that have a member. */
export type Having<M extends keyof SharedMembers> = Extract<MoveBody, Pick<SharedMembers, M>>;

/** Changes the keys of a track, whatever kind of move has it. */
export function editTrack(
  row: Row<'move'>,
  label: string,
  name: TrackName,
  change: (keys: Key[], body: MoveBody) => Key[],
): void {
  editBody('move', row, label, (body) => ({
    ...body,
    tracks: { ...body.tracks, [name]: change(body.tracks?.[name] ?? [], body) },
  }));
}

/** Keeps a change of a move's path; one that would make more of it than a move can hold is not made, and said. */
export const keepPath = (row: Row<'move'>, label: string, change: (path: Path) => Path): void =>
  keepWay(row, label, (body) => ({ ...body, path: change(body.path) }));

/** The same for a change of the path and of what goes along with it. */
export function keepWay(row: Row<'move'>, label: string, change: (body: Having<'path'>) => Having<'path'>): void {
  editShared(row, 'path', label, (body) => {
    const changed = change(body);
    const fault = pathFault(changed.path);
    if (!fault || pathFault(body.path)) return changed;
    toast(wordsOf(fault), { id: 'path-limit' });
    return body;
  });
}

function wordsOf({ rule, worst, limit }: PathFault): string {
  return rule === 'nodes'
    ? `A path has ${limit.toLocaleString('en')} nodes at most. Draw the rest as another move.`
    : `A path is ${limit / 1000} km long at most; this would be ${(worst / 1000).toFixed(1)} km. Draw the rest as another move.`;
}
