import type { Bounds, Orbit, Vec3 } from '../document/index.ts';
import { middle, orientationOf, toDegrees } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { sweepOf, type Sweep } from '../action/index.ts';
import { timeAtStation } from '../pace/index.ts';
import type { Footing } from '../survey/index.ts';
import type { Channel } from '../track/index.ts';
import { heightChannel } from './height-channel.ts';
import { CameraTracks, clockOfWay, tracksClose } from './camera-tracks.ts';
import { within, type CompiledMove, type Looked, type MovePath } from './sample.ts';

import { SampledCamera } from './sampled.ts';

/** What an orbit goes round, as it is found on the site. */
export interface PivotPlace {
  /** Its middle at a time, metres. */
  at: (time: number) => Vec3;
  /** It goes somewhere while time does. */
  moves: boolean;
  /** Its extent at rest; null for a mere point. */
  bounds: Bounds | null;
  /** Corners that hold all of it at rest; those of its box, where no more is known. */
  corners: readonly Vec3[];
}

/** Bearings from which a fitted subject is looked at. */
const BEARINGS = 180;
/** Without anything to fit, the camera keeps this far away, metres. */
const FIRST_RADIUS = 5;
/** A turn is whole if it is so to this many radians. */
const WHOLE = 1e-6;
const TURN = 2 * Math.PI;

/** Without an extent, what is so near to the pivot belongs to it: a part of the way to it. */
const PIVOT_PART = 0.5;

/** How near to its pivot what is gone round begins, metres. */
const reachAbout = ({ bounds }: PivotPlace, radius: number): number =>
  bounds ? Math.hypot(...bounds.max.map((value, k) => value - bounds.min[k]!)) / 2 : PIVOT_PART * radius;

function extentOf({ bounds, corners }: PivotPlace): Pick<Looked, 'bounds' | 'corners'> {
  if (!bounds) return {};
  const centre = middle(bounds);
  return { bounds, corners: corners.map((corner) => corner.map((value, k) => value - centre[k]!) as Vec3) };
}

/** A camera that goes round something, ready to be asked. */
export class CompiledOrbit extends SampledCamera implements CompiledMove {
  readonly duration: number;
  readonly loops: boolean;
  /** At its beginning, metres. */
  readonly radius: number;
  readonly ground = null;
  readonly gazeOff = [];
  readonly looks: readonly Looked[];
  readonly channels: readonly Channel[];
  readonly path: MovePath;
  private readonly sweep: Sweep;
  /** Radians of it; a camera that only stands still has no pace. */
  private readonly angle: number;
  protected readonly tracks: CameraTracks;

  /** @param aspect width over height of its pictures, for fitting */
  constructor(
    private readonly orbit: Orbit,
    private readonly pivot: PivotPlace,
    aspect: number,
    footing: Footing,
  ) {
    super();
    const { duration, sweep, swings, rise = 0, widens = 1 } = orbit;
    this.duration = duration;
    const turns = Math.abs(sweep) / TURN;
    const closes = turns > 0.5 && Math.abs(turns - Math.round(turns)) < WHOLE && rise === 0 && widens === 1;
    this.sweep = sweepOf(orbit);
    this.angle = this.sweep.pace.length;
    const anchors = { duration, timeAt: null, stationOf: null };
    this.loops = !pivot.moves && (closes || swings === true) && tracksClose(orbit.tracks, anchors);
    const way = { duration, length: this.angle, stationAt: (time: number) => this.sweep.at(time) };
    const clock = orbit.together ? clockOfWay(way) : undefined;
    this.tracks = new CameraTracks(orbit.lens, orbit.tracks, anchors, this.loops, null, clock);
    this.radius =
      orbit.distance.by === 'radius'
        ? orbit.distance.radius
        : fittingRadius(
            orbit,
            pivot,
            { ...orbit.lens, focalLengthMm: this.tracks.longest },
            orbit.distance.fill,
            aspect,
          );
    this.channels = [
      this.section(footing),
      {
        id: 'turn',
        title: 'Turn',
        unit: '°/s',
        at: (time) => (sweep === 0 ? 0 : toDegrees(this.sweep.speedAt(time))),
        items: (this.sweep.pace.pauses ?? []).map(({ id, from, seconds }) => {
          return { id, kind: 'pause' as const, from, to: from + seconds, value: null, about: 'Stop' };
        }),
      },
      ...this.tracks.channels,
    ];
    this.path = this.ring();
    const reach = reachAbout(pivot, this.radius);
    this.looks = [{ from: 0, to: duration, at: pivot.at, reach, ...extentOf(pivot) }];
  }

  get lostKeys(): number {
    return this.tracks.lostKeys;
  }

  protected write(instant: number, out: Float64Array, offset: number): void {
    const time = within(instant, this);
    const part = this.sweep.at(time) / this.angle;
    const { flat, up } = awayAt(this.orbit, this.radius, part);
    const [x, y, z] = this.pivot.at(time);
    const pan = this.panOf(part);
    out[offset] = x + flat * Math.sin(pan);
    out[offset + 1] = y + up;
    out[offset + 2] = z + flat * Math.cos(pan);
    this.tracks.finish(time, pan, -Math.atan2(up, flat), out, offset);
  }

  /** How high the camera is over what is under it. */
  private section(footing: Footing): Channel {
    const place = (time: number) => {
      this.write(time, this.scratch, 0);
      return this.scratch;
    };
    const end = this.orbit.swings ? this.duration / 2 : this.duration;
    const hand = (id: string, time: number) => {
      const value = this.placeOf(time === 0 ? 0 : 1, this.pivot.at(time))[1];
      return { id, kind: 'pose' as const, from: time, to: time, value, about: id === 'start' ? 'Start' : 'End' };
    };
    return heightChannel(footing, (time, out, at) => out.set(place(time).subarray(0, 3), at), {
      items: [hand('start', 0), hand('end', end)],
      belowAt: (x, y, z) => {
        const below = footing.floors.floorBelow(x, z, y);
        return below > -Infinity ? below : Math.min(y, this.pivot.at(0)[1]);
      },
    });
  }

  /** Where the camera is after a part of its sweep about a place, without what tracks add, metres. */
  private placeOf(part: number, [x, y, z]: Vec3): Vec3 {
    const pan = this.panOf(part);
    const { flat, up } = awayAt(this.orbit, this.radius, part);
    return [x + flat * Math.sin(pan), y + up, z + flat * Math.cos(pan)];
  }

  /** Where it looks from after a part of its sweep; where the subject turns before it, it does not go round. */
  private panOf(part: number): number {
    const { start, sweep, turns } = this.orbit;
    return start + (turns === 'subject' ? 0 : Math.sign(sweep) * part * this.angle);
  }

  /** The way of the camera as it is seen from above, about where the pivot is at first. */
  private ring(): MovePath {
    const { orbit, angle } = this;
    const { start, inclination, turns } = orbit;
    const sign = turns === 'subject' ? 0 : Math.sign(orbit.sweep);
    const flatRadius = Math.max(this.radius * Math.cos(inclination), 1e-6);
    const centre = this.pivot.at(0);
    const length = flatRadius * angle;
    const placeAt = (station: number) => this.placeOf(station / flatRadius / angle, centre);
    return {
      length,
      closed: this.loops && !orbit.swings,
      topSpeed: this.sweep.pace.cruise * flatRadius,
      stationAt: (time) => this.sweep.at(time) * flatRadius,
      timeAt: (station) => timeAtStation(this.sweep.pace, station / flatRadius),
      pointAt: (station, out) => {
        const [px, , pz] = placeAt(station);
        out[0] = px;
        out[1] = pz;
      },
      placeAt,
      anchorAt: (station) => ({ by: 'station', station: Math.max(0, station) }),
      nearest: (px, pz) => {
        const off = (sign || 1) * (Math.atan2(px - centre[0], pz - centre[2]) - start);
        const turned = ((off % TURN) + TURN) % TURN;
        // Of an arc the end that is nearer, where the place lies beside it.
        const beyond = turned - angle;
        return beyond > 0 ? (beyond < TURN - turned ? length : 0) : turned * flatRadius;
      },
    };
  }
}

/** How far from its pivot a camera is after a part of its sweep: in plan, and above it, metres. */
function awayAt(
  { inclination, rise = 0, widens = 1 }: Orbit,
  radius: number,
  part: number,
): { flat: number; up: number } {
  const away = radius * (1 + (widens - 1) * part);
  return { flat: away * Math.cos(inclination), up: away * Math.sin(inclination) + rise * part };
}

/** With a rise, how steeply it looks depends on how far away it is: found by so many rounds. */
const ROUNDS = 6;

/**
 * How far away the whole subject stays within a part of the frame, from every bearing of the orbit, metres: for each
 * corner c of its outline |x| ≤ fill · half width · (R + c·forward), solved for R.
 */
function fittingRadius(
  orbit: Orbit,
  { at, corners: held }: PivotPlace,
  lens: Orbit['lens'],
  fill: number,
  aspect: number,
): number {
  if (held.length === 0) return FIRST_RADIUS;
  const { start, sweep, rise = 0, widens = 1 } = orbit;
  const centre = at(0);
  const { window } = new Projection(throughLens(lens), aspect);
  const room = (low: number, high: number) => {
    // A shifted lens has less room on one side; where the subject is out of the frame, as if it were not shifted.
    const inner = Math.min(-low, high);
    return fill * (inner > 0 ? inner : (high - low) / 2);
  };
  const [halfWidth, halfHeight] = [room(window.left, window.right), room(window.bottom, window.top)];
  const corners = held.map((corner) => corner.map((value, n) => value - centre[n]!) as Vec3);
  /** The least distance at the beginning, looking as steeply as from a distance. */
  const needed = (from: number): number => {
    let radius = 0;
    for (let k = 0; k <= BEARINGS; k += 1) {
      const part = k / BEARINGS;
      const { flat, up } = awayAt(orbit, from, part);
      // A subject that turns shows the camera the sides that it would have gone round to.
      const pan = start + sweep * part;
      const turned = new Projection(
        throughLens(lens),
        aspect,
        [0, 0, 0],
        orientationOf({ pan, tilt: -Math.atan2(up, flat), roll: 0 }),
      );
      // From there it is so much farther to the pivot than from the beginning.
      const farther = Math.hypot(flat, up) / Math.max(from, 1e-9);
      for (const c of corners) {
        const [x, y, depth] = turned.alongAxes(c);
        const away = Math.max(Math.abs(x) / halfWidth - depth, Math.abs(y) / halfHeight - depth, 1.05 * -depth);
        radius = Math.max(radius, away / farther);
      }
    }
    return radius;
  };
  // Without a rise the distance does not matter: it is the same wherever one looks from.
  let radius = needed(1);
  if (rise !== 0 || widens !== 1) for (let round = 0; round < ROUNDS && radius > 0; round += 1) radius = needed(radius);
  return radius > 0 ? radius : FIRST_RADIUS;
}
