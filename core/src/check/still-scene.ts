import type { Bounds, CheckLimits, StillCamera, Vec3 } from '../document/index.ts';
import { fitted, lookingAt } from '../framing/index.ts';
import { cornersOf, forwardOf, middle, nearestTurn, toDegrees, toRadians, triangleNormal } from '../geometry/index.ts';
import type { Projection } from '../optics/index.ts';
import type { Footing } from '../survey/index.ts';
import type { StillFinding } from './still-finding.ts';

/** Places of the picture that are looked at, −1…1. */
const ACROSS = [-0.85, -0.6, -0.35, -0.1, 0.1, 0.35, 0.6, 0.85];
const UPWARD = [-0.7, -0.25, 0.2, 0.65];
/** Facades are looked for up to this far, and from this near on, metres. */
const FAR = 80;
const FACADE_FROM = 4;
/** One facade fills at least so much of what is looked at. */
const FILLS = 0.5;
/** Normals that differ by less belong to one facade, radians. */
const SAME_PLANE = toRadians(4);
/** How far round something one goes to see two sides of it, radians (common practice, no source). */
const ROUND = toRadians(35);

/** Nobody gets between walls that are nearer to each other than this, metres: an eye there is in a thing. */
const INSIDE = 1.2;
const LEVEL: readonly Vec3[] = [
  [1, 0, 0],
  [0, 0, 1],
];

/** A subject of which less is seen is hidden. */
const SEEN = 0.35;
/** The part of the picture that a subject fills that was cut, when it is mended. */
const MENDED = 0.85;

/**
 * An eye within a wall or a piece of furniture: to all sides and above it sees the insides of it. Not below: what stands
 * on a floor may have no underside.
 */
export function insideFindings({ position }: Projection, footing: Footing): StillFinding[] {
  if (behindOf(footing, position, [0, 1, 0]) === null) return [];
  let narrowest = Infinity;
  for (const axis of LEVEL) {
    const there = behindOf(footing, position, axis);
    const back = behindOf(footing, position, axis.map((value) => -value) as Vec3);
    if (there === null || back === null) return [];
    narrowest = Math.min(narrowest, there + back);
  }
  return narrowest < INSIDE ? [finding('eye inside', 'problem', { point: [...position] })] : [];
}

/** Distance to the first surface where it is met from behind; null where it is met from before, or there is none. */
function behindOf(footing: Footing, from: Vec3, direction: Vec3): number | null {
  const hit = footing.solids.first(from, direction, FAR);
  if (!hit) return null;
  const [x, y, z] = normalOf(footing, hit.triangle);
  return x * direction[0] + y * direction[1] + z * direction[2] > 0 ? hit.distance : null;
}

const normal = new Float64Array(3);
function normalOf(footing: Footing, triangle: number): Vec3 {
  triangleNormal(footing.solids.triangles, triangle, normal);
  const size = Math.hypot(normal[0]!, normal[1]!, normal[2]!) || 1;
  return [normal[0]! / size, normal[1]! / size, normal[2]! / size];
}

/** A facade seen straight on, outdoors: flat as a drawing. From over a corner it has two sides. */
export function facadeFindings(
  { pose, lens }: StillCamera,
  projection: Projection,
  footing: Footing,
  limits: CheckLimits,
): StillFinding[] {
  const [x, y, z] = pose.position;
  if (footing.headroom(x, z, y) !== Infinity) return [];
  const walls: { facing: number; at: Vec3 }[] = [];
  for (const u of ACROSS)
    for (const v of UPWARD) {
      const { from, direction } = projection.ray(u, v);
      const hit = footing.solids.first(from, direction, FAR);
      if (!hit || hit.distance < FACADE_FROM) continue;
      const [nx, ny, nz] = normalOf(footing, hit.triangle);
      if (Math.abs(ny) > 0.1) continue;
      // Whichever way it is wound, it looks at the eye.
      const sign = nx * direction[0] + nz * direction[2] > 0 ? -1 : 1;
      const at = from.map((value, k) => value + direction[k]! * hit.distance) as Vec3;
      walls.push({ facing: Math.atan2(sign * nx, sign * nz), at });
    }
  const [ax, , az] = forwardOf(pose.orientation);
  const looked = Math.atan2(-ax, -az);
  const straight = walls.filter(({ facing }) => Math.abs(nearestTurn(facing - looked)) < toRadians(limits.straightOn));
  const same = straight.filter(({ facing }) => Math.abs(nearestTurn(facing - straight[0]!.facing)) < SAME_PLANE);
  if (same.length < FILLS * ACROSS.length * UPWARD.length) return [];
  const centre = [0, 1, 2].map((k) => same.reduce((sum, { at }) => sum + at[k]!, 0) / same.length) as Vec3;
  const off = toDegrees(Math.abs(nearestTurn(same[0]!.facing - looked)));
  const [s, c] = [Math.sin(ROUND), Math.cos(ROUND)];
  const [dx, dz] = [x - centre[0], z - centre[2]];
  const position: Vec3 = [centre[0] + dx * c + dz * s, y, centre[2] - dx * s + dz * c];
  const level: Vec3 = [centre[0], y, centre[2]];
  const { orientation } = lookingAt({ position, orientation: pose.orientation }, level);
  return [
    finding('straight on', 'note', {
      worst: off,
      limit: limits.straightOn,
      point: centre,
      fix: { pose: { position, orientation }, lens },
    }),
  ];
}

/** What the picture is about: is it cut by the frame, or hidden behind something? @param aspect width over height */
export function subjectFindings(
  { pose, lens }: StillCamera,
  projection: Projection,
  aspect: number,
  bounds: Bounds,
  footing: Footing | null,
): StillFinding[] {
  const seen = cornersOf(bounds).map((corner) => projection.project(corner));
  const over = Math.max(...seen.map(({ x, y, depth }) => (depth > 0 ? Math.max(Math.abs(x), Math.abs(y)) : Infinity)));
  const findings: StillFinding[] = [];
  if (over > 1)
    findings.push(
      finding('subject cut', 'note', {
        worst: over === Infinity ? null : over,
        limit: 1,
        point: middle(bounds),
        fix: fitted(bounds, pose.orientation, { lens, aspect, fill: MENDED }),
      }),
    );
  if (!footing || lens.parallel !== undefined) return findings;
  const share = seenShare(projection.position, bounds, footing);
  if (share < SEEN)
    findings.push(finding('subject hidden', 'problem', { worst: share, limit: SEEN, point: middle(bounds) }));
  return findings;
}

/** How much of a box can be seen from an eye, 0…1: sight lines to points in it that meet nothing before it. */
function seenShare(eye: Vec3, { min, max }: Bounds, footing: Footing): number {
  const parts = [0.15, 0.5, 0.85];
  let [free, all] = [0, 0];
  for (const u of parts)
    for (const v of parts)
      for (const w of parts) {
        const to = [u, v, w].map((part, k) => min[k]! + part * (max[k]! - min[k]!)) as Vec3;
        const length = Math.hypot(...to.map((value, k) => value - eye[k]!));
        all += 1;
        if (length === 0) continue;
        const place = footing.hiding(eye, to)?.point;
        if (!place || place.every((value, k) => value > min[k]! - ABOUT && value < max[k]! + ABOUT)) free += 1;
      }
  return free / all;
}
/** What is so near to a thing's box belongs to it, metres. */
const ABOUT = 0.02;

const finding = (
  rule: StillFinding['rule'],
  severity: StillFinding['severity'],
  more: Partial<StillFinding>,
): StillFinding => ({ rule, severity, worst: null, limit: null, point: null, fix: null, ...more });
