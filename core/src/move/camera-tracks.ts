import { Quaternion as Turn } from 'three';
import type { Lens, Quaternion, TrackName, Tracks } from '../document/index.ts';
import { anglesOf, orientationOf, toRadians, writeOrientation } from '../geometry/index.ts';
import { throughLens, type CameraView } from '../optics/index.ts';
import { timeOf, TrackCurve, type AnchorTimes, type Channel } from '../track/index.ts';

/** Focal lengths that a hand can give, mm. */
export const FOCAL_LENGTHS: readonly [number, number] = [8, 600];

/** What of a camera may change along any move; its strips are shown once there are keys. */
const CHANGING: Record<Exclude<TrackName, 'lift'>, Omit<Channel, 'at' | 'track'> & Hand> = {
  focalLength: { id: 'lens', title: 'Lens', unit: 'mm', limits: FOCAL_LENGTHS, step: 1 },
  focus: { id: 'focus', title: 'Focus', unit: 'm', limits: [0.05, 1000], step: 0.1 },
  fNumber: { id: 'f-number', title: 'f-number', unit: 'f/', limits: [0.7, 64], step: 0.1 },
  roll: { id: 'roll', title: 'Roll', unit: '°', limits: [-90, 90], step: 0.5 },
  exposure: { id: 'exposure', title: 'Exposure', unit: 'stops', limits: [-5, 5], step: 0.1 },
  truck: { id: 'truck', title: 'Truck', unit: 'm', limits: [-100, 100], step: 0.05 },
  pedestal: { id: 'pedestal', title: 'Pedestal', unit: 'm', limits: [-100, 100], step: 0.05 },
  dolly: { id: 'dolly', title: 'Dolly', unit: 'm', limits: [-100, 100], step: 0.05 },
  pan: { id: 'pan', title: 'Pan', unit: '°', limits: [-360, 360], step: 1 },
  tilt: { id: 'tilt', title: 'Tilt', unit: '°', limits: [-90, 90], step: 1 },
};
interface Hand {
  limits: readonly [number, number];
  step: number;
}

/** What of the camera of a move changes over time. */
export class CameraTracks {
  readonly channels: readonly Channel[];
  readonly lostKeys: number;
  private readonly still: CameraView;
  private readonly curves = new Map<TrackName, TrackCurve>();
  private readonly shifts: boolean;

  constructor(
    private readonly lens: Lens,
    tracks: Tracks = {},
    anchors: AnchorTimes,
    loops: boolean,
    /** How much longer the lens is at a time than its track says; null where only that counts. */
    private readonly held: ((time: number) => number) | null | undefined = null,
    /** The clock that the tracks go by, where it is another than that of the move. */
    private readonly clock: (time: number) => number = (time) => time,
  ) {
    this.still = throughLens(lens);
    const channels: Channel[] = [];
    let lost = 0;
    for (const name of Object.keys(CHANGING) as (keyof typeof CHANGING)[]) {
      const curve = new TrackCurve(tracks[name] ?? [], anchors, loops);
      lost += curve.lost;
      if (curve.keys.length === 0) continue;
      this.curves.set(name, curve);
      const { limits, step, ...channel } = CHANGING[name];
      channels.push({
        ...channel,
        at: (time) => curve.at(clock(time)),
        track: { name, keys: curve.keys, limits, step },
      });
    }
    if (held && !this.curves.has('focalLength')) {
      const { id, title, unit } = CHANGING.focalLength;
      channels.unshift({ id, title, unit, at: (time) => this.focalLengthAt(time) });
    }
    this.channels = channels;
    this.lostKeys = lost;
    this.shifts = (['truck', 'pedestal', 'dolly'] as const).some((name) => this.curves.has(name));
  }

  /** mm */
  focalLengthAt(time: number): number {
    const length = this.at('focalLength', time, this.lens.focalLengthMm);
    if (!this.held) return length;
    return Math.min(FOCAL_LENGTHS[1], Math.max(FOCAL_LENGTHS[0], length * this.held(time)));
  }

  /** What a track says at a time; what the move says where it has no keys. */
  private at(name: TrackName, time: number, otherwise: number): number {
    return this.curves.get(name)?.at(this.clock(time)) ?? otherwise;
  }

  viewAt(time: number): CameraView {
    const { curves, lens, held } = this;
    if (!held && !curves.has('focalLength') && !curves.has('focus') && !curves.has('fNumber')) return this.still;
    const sharp = curves.has('focus') || lens.focus !== undefined;
    const stopped = curves.has('fNumber') || lens.fNumber !== undefined;
    return throughLens({
      ...lens,
      focalLengthMm: this.focalLengthAt(time),
      ...(sharp && { focus: this.at('focus', time, lens.focus ?? Infinity) }),
      ...(stopped && { fNumber: this.at('fNumber', time, lens.fNumber ?? Infinity) }),
    });
  }

  /**
   * Writes the rest of a sample whose place is written already: pan and tilt in radians, with what the tracks turn, lean
   * and shift on top of them, and what it is seen through.
   * @param lean to the left, radians, besides that of the track
   */
  finish(time: number, pan: number, tilt: number, out: Float64Array, offset: number, lean = 0): void {
    const turned = pan + toRadians(this.at('pan', time, 0));
    const raised = tilt + toRadians(this.at('tilt', time, 0));
    writeOrientation(turned, raised, lean + toRadians(this.at('roll', time, 0)), out, offset + 3);
    this.shift(time, pan, out, offset);
    this.writeLens(time, out, offset);
  }

  /** The same for a camera that does not turn about the vertical: the tracks turn it about its own axes. */
  finishFree(time: number, orientation: Quaternion, out: Float64Array, offset: number): void {
    own.fromArray(orientation);
    const [pan, tilt, roll] = [this.at('pan', time, 0), this.at('tilt', time, 0), this.at('roll', time, 0)];
    if (pan !== 0 || tilt !== 0 || roll !== 0) {
      const angles = { pan: toRadians(pan), tilt: toRadians(tilt), roll: toRadians(roll) };
      own.multiply(turn.fromArray(orientationOf(angles)));
    }
    own.toArray(out, offset + 3);
    if (this.shifts) this.shift(time, anglesOf(orientation).pan, out, offset);
    this.writeLens(time, out, offset);
  }

  /** Truck, pedestal and dolly are level with the ground. */
  private shift(time: number, pan: number, out: Float64Array, offset: number): void {
    if (!this.shifts) return;
    const [right, ahead] = [this.at('truck', time, 0), this.at('dolly', time, 0)];
    const [sine, cosine] = [Math.sin(pan), Math.cos(pan)];
    out[offset] = out[offset]! + right * cosine - ahead * sine;
    out[offset + 1] = out[offset + 1]! + this.at('pedestal', time, 0);
    out[offset + 2] = out[offset + 2]! - right * sine - ahead * cosine;
  }

  /** Focal length, focus, f-number and exposure. */
  private writeLens(time: number, out: Float64Array, offset: number): void {
    const { lens } = this;
    out[offset + 7] = this.focalLengthAt(time);
    out[offset + 8] = this.at('focus', time, lens.focus ?? Infinity);
    out[offset + 9] = this.at('fNumber', time, lens.fNumber ?? Infinity);
    out[offset + 10] = this.at('exposure', time, lens.exposure ?? 0);
  }

  /** The longest focal length of the move, mm. */
  get longest(): number {
    return Math.max(...(this.curves.get('focalLength')?.keys.map(({ value }) => value) ?? [this.lens.focalLengthMm]));
  }
}

const own = new Turn();
const turn = new Turn();

/**
 * Do tracks end as they begin, so that what they are of may go round? A value that is keyed at both ends and differs does
 * not: whoever pushes in all the way round wants that push.
 */
export function tracksClose(tracks: Tracks | undefined, anchors: AnchorTimes): boolean {
  const { duration } = anchors;
  return Object.values(tracks ?? {}).every((keys) => {
    const placed = keys.flatMap((key) => {
      const time = timeOf(key.anchor, anchors);
      return time === null ? [] : [{ time, value: key.value }];
    });
    const first = placed.find(({ time }) => time < AT_END);
    const last = placed.find(({ time }) => time > duration - AT_END);
    return !first || !last || Math.abs(first.value - last.value) < SAME;
  });
}
/** Seconds. */
const AT_END = 1e-6;
const SAME = 1e-9;

/** A clock that goes as fast as a move gets on: at half the way it shows half the time. */
export const clockOfWay =
  (way: { duration: number; length: number; stationAt: (time: number) => number }): ((time: number) => number) =>
  (time) =>
    way.length > 0 ? (way.duration * way.stationAt(time)) / way.length : time;
