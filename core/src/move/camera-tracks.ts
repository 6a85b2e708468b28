import type { Lens, TrackName, Tracks } from '../document/index.ts';
import { toRadians } from '../geometry/index.ts';
import { throughLens, type CameraView } from '../optics/index.ts';
import { TrackCurve, type AnchorTimes, type Channel } from '../track/index.ts';

/** Focal lengths that a hand can give, mm. */
export const FOCAL_LENGTHS: readonly [number, number] = [8, 600];

/** What of a camera may change along any move; its strips are shown once there are keys. */
const CHANGING: Record<Exclude<TrackName, 'lift'>, Omit<Channel, 'at' | 'track'> & Hand> = {
  focalLength: { id: 'lens', title: 'Lens', unit: 'mm', limits: FOCAL_LENGTHS, step: 1 },
  focus: { id: 'focus', title: 'Focus', unit: 'm', limits: [0.05, 1000], step: 0.1 },
  fNumber: { id: 'f-number', title: 'f-number', unit: 'f/', limits: [0.7, 64], step: 0.1 },
  roll: { id: 'roll', title: 'Roll', unit: '°', limits: [-90, 90], step: 0.5 },
  exposure: { id: 'exposure', title: 'Exposure', unit: 'stops', limits: [-5, 5], step: 0.1 },
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

  constructor(
    private readonly lens: Lens,
    tracks: Tracks = {},
    anchors: AnchorTimes,
    loops: boolean,
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
      channels.push({ ...channel, at: (time) => curve.at(time), track: { name, keys: curve.keys, limits, step } });
    }
    this.channels = channels;
    this.lostKeys = lost;
  }

  /** What a track says at a time; what the move says where it has no keys. */
  private at(name: TrackName, time: number, otherwise: number): number {
    return this.curves.get(name)?.at(time) ?? otherwise;
  }

  viewAt(time: number): CameraView {
    const { curves, lens } = this;
    if (!curves.has('focalLength') && !curves.has('focus') && !curves.has('fNumber')) return this.still;
    const sharp = curves.has('focus') || lens.focus !== undefined;
    const stopped = curves.has('fNumber') || lens.fNumber !== undefined;
    return throughLens({
      ...lens,
      focalLengthMm: this.at('focalLength', time, lens.focalLengthMm),
      ...(sharp && { focus: this.at('focus', time, lens.focus ?? Infinity) }),
      ...(stopped && { fNumber: this.at('fNumber', time, lens.fNumber ?? Infinity) }),
    });
  }

  /** Radians. */
  rollAt(time: number): number {
    return toRadians(this.at('roll', time, 0));
  }

  /** stops */
  exposureAt(time: number): number {
    return this.at('exposure', time, 0);
  }

  /** Writes focal length, focus and f-number. */
  write(time: number, out: Float64Array, offset: number): void {
    const { lens } = this;
    out[offset] = this.at('focalLength', time, lens.focalLengthMm);
    out[offset + 1] = this.at('focus', time, lens.focus ?? Infinity);
    out[offset + 2] = this.at('fNumber', time, lens.fNumber ?? Infinity);
  }

  /** The longest focal length of the move, mm. */
  get longest(): number {
    return Math.max(...(this.curves.get('focalLength')?.keys.map(({ value }) => value) ?? [this.lens.focalLengthMm]));
  }
}
