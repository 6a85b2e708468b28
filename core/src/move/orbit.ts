import type { Bounds, Orbit, Vec3 } from '../document/index.ts';
import { orientationOf, toDegrees, writeOrientation } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { paceProfile, timeAtStation, type PaceProfile } from '../pace/index.ts';
import type { Channel } from '../track/index.ts';
import { CameraTracks } from './camera-tracks.ts';
import {
  SAMPLE_STRIDE,
  sampleOf,
  within,
  type CameraSample,
  type CompiledMove,
  type Looked,
  type MovePath,
} from './sample.ts';

/** What an orbit goes round, as it is found on the site. */
export interface PivotPlace {
  /** Its middle at a time, metres. */
  at: (time: number) => Vec3;
  /** It goes somewhere while time does. */
  moves: boolean;
  /** Its extent at rest; null for a mere point. */
  bounds: Bounds | null;
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

/** A camera that goes round something, ready to be asked. */
export class CompiledOrbit implements CompiledMove {
  readonly duration: number;
  readonly loops: boolean;
  /** metres */
  readonly radius: number;
  readonly ground = null;
  readonly gazeOff = [];
  readonly looks: readonly Looked[];
  readonly channels: readonly Channel[];
  readonly path: MovePath;
  private readonly pace: PaceProfile;
  private readonly tracks: CameraTracks;
  private readonly scratch = new Float64Array(SAMPLE_STRIDE);

  /** @param aspect width over height of its pictures, for fitting */
  constructor(
    private readonly orbit: Orbit,
    private readonly pivot: PivotPlace,
    aspect: number,
  ) {
    const { duration, sweep, shape } = orbit;
    this.duration = duration;
    const turns = Math.abs(sweep) / TURN;
    this.loops = !pivot.moves && turns > 0.5 && Math.abs(turns - Math.round(turns)) < WHOLE;
    // Its stations are radians of sweep; a camera that only stands still has no pace.
    const angle = Math.max(Math.abs(sweep), 1e-9);
    this.pace = paceProfile({ by: 'duration', speed: 1, duration, shape }, { length: angle });
    this.tracks = new CameraTracks(orbit.lens, orbit.tracks, { duration, timeAt: null, stationOf: null }, this.loops);
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
      { id: 'turn', title: 'Turn', unit: '°/s', at: (time) => (sweep === 0 ? 0 : toDegrees(this.pace.speedAt(time))) },
      ...this.tracks.channels,
    ];
    this.path = this.ring();
    this.looks = [{ from: 0, to: duration, at: pivot.at, reach: reachAbout(pivot, this.radius) }];
  }

  get lostKeys(): number {
    return this.tracks.lostKeys;
  }

  sampleAt(time: number): CameraSample {
    this.write(time, this.scratch, 0);
    return sampleOf(this.scratch, this.tracks.viewAt(within(time, this)), time);
  }

  fill(times: ArrayLike<number>, out: Float64Array): void {
    for (let i = 0; i < times.length; i += 1) this.write(times[i]!, out, i * SAMPLE_STRIDE);
  }

  private panAt(time: number): number {
    const { start, sweep } = this.orbit;
    return start + Math.sign(sweep) * this.pace.stationAt(within(time, this));
  }

  private write(time: number, out: Float64Array, offset: number): void {
    const pan = this.panAt(time);
    const { inclination } = this.orbit;
    const flat = this.radius * Math.cos(inclination);
    const [x, y, z] = this.pivot.at(time);
    out[offset] = x + flat * Math.sin(pan);
    out[offset + 1] = y + this.radius * Math.sin(inclination);
    out[offset + 2] = z + flat * Math.cos(pan);
    writeOrientation(pan, -inclination, this.tracks.rollAt(within(time, this)), out, offset + 3);
    this.tracks.write(within(time, this), out, offset + 7);
    out[offset + 10] = this.tracks.exposureAt(within(time, this));
  }

  /** The way of the camera as it is seen from above, about where the pivot is at first. */
  private ring(): MovePath {
    const { start, sweep, inclination } = this.orbit;
    const flat = Math.max(this.radius * Math.cos(inclination), 1e-6);
    const [x, y, z] = this.pivot.at(0);
    const length = flat * Math.max(Math.abs(sweep), 1e-9);
    const panOf = (station: number) => start + (Math.sign(sweep) * station) / flat;
    return {
      length,
      closed: this.loops,
      topSpeed: this.pace.cruise * flat,
      stationAt: (time) => this.pace.stationAt(time) * flat,
      timeAt: (station) => timeAtStation(this.pace, station / flat),
      pointAt: (station, out) => {
        out[0] = x + flat * Math.sin(panOf(station));
        out[1] = z + flat * Math.cos(panOf(station));
      },
      placeAt: (station) => [
        x + flat * Math.sin(panOf(station)),
        y + this.radius * Math.sin(inclination),
        z + flat * Math.cos(panOf(station)),
      ],
      anchorAt: (station) => ({ by: 'station', station: Math.max(0, station) }),
      nearest: (px, pz) => {
        const off = Math.sign(sweep || 1) * (Math.atan2(px - x, pz - z) - start);
        const turned = ((off % TURN) + TURN) % TURN;
        // Of an arc the end that is nearer, where the place lies beside it.
        const beyond = turned - Math.abs(sweep);
        return beyond > 0 ? (beyond < TURN - turned ? length : 0) : turned * flat;
      },
    };
  }
}

/**
 * How far away the whole subject stays within a part of the frame, from every bearing of the orbit, metres: for each
 * corner c of its box |x| ≤ fill · half width · (R + c·forward), solved for R.
 */
function fittingRadius(
  { start, sweep, inclination }: Orbit,
  { at, bounds }: PivotPlace,
  lens: Orbit['lens'],
  fill: number,
  aspect: number,
): number {
  if (!bounds) return FIRST_RADIUS;
  const centre = at(0);
  const { window } = new Projection(throughLens(lens), aspect);
  const room = (low: number, high: number) => {
    // A shifted lens has less room on one side; where the subject is out of the frame, as if it were not shifted.
    const inner = Math.min(-low, high);
    return fill * (inner > 0 ? inner : (high - low) / 2);
  };
  const [halfWidth, halfHeight] = [room(window.left, window.right), room(window.bottom, window.top)];
  let radius = 0;
  for (let k = 0; k <= BEARINGS; k += 1) {
    const turned = new Projection(
      throughLens(lens),
      aspect,
      [0, 0, 0],
      orientationOf({ pan: start + (sweep * k) / BEARINGS, tilt: -inclination, roll: 0 }),
    );
    for (let corner = 0; corner < 8; corner += 1) {
      const c = [0, 1, 2].map((n) => ((corner >> n) & 1 ? bounds.max[n]! : bounds.min[n]!) - centre[n]!) as Vec3;
      const [x, y, depth] = turned.alongAxes(c);
      radius = Math.max(radius, Math.abs(x) / halfWidth - depth, Math.abs(y) / halfHeight - depth, 1.05 * -depth);
    }
  }
  return radius > 0 ? radius : FIRST_RADIUS;
}
