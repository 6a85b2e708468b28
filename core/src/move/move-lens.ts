import type { Lens, Tracks } from '../document/index.ts';
import { throughLens, type CameraView } from '../optics/index.ts';
import { TrackCurve, type AnchorTimes, type Channel } from '../track/index.ts';

/** Focal lengths that a hand can give, mm. */
export const FOCAL_LENGTHS: readonly [number, number] = [8, 600];

/** The lens of a move over time. */
export class MoveLens {
  readonly channels: readonly Channel[];
  readonly lostKeys: number;
  private readonly still: CameraView;
  private readonly focal: TrackCurve | null;

  constructor(
    private readonly lens: Lens,
    tracks: Tracks | undefined,
    anchors: AnchorTimes,
    loops: boolean,
  ) {
    this.still = throughLens(lens);
    const focal = new TrackCurve(tracks?.focalLength ?? [], anchors, loops);
    this.lostKeys = focal.lost;
    this.focal = focal.keys.length > 0 ? focal : null;
    this.channels = this.focal
      ? [
          {
            id: 'lens',
            title: 'Lens',
            unit: 'mm',
            at: (time) => focal.at(time),
            track: { name: 'focalLength', keys: focal.keys, limits: FOCAL_LENGTHS, step: 1 },
          },
        ]
      : [];
  }

  viewAt(time: number): CameraView {
    return this.focal ? throughLens({ ...this.lens, focalLengthMm: this.focal.at(time) }) : this.still;
  }

  /** Writes focal length, focus and f-number. */
  write(time: number, out: Float64Array, offset: number): void {
    out[offset] = this.focal ? this.focal.at(time) : this.lens.focalLengthMm;
    out[offset + 1] = this.lens.focus ?? Infinity;
    out[offset + 2] = this.lens.fNumber ?? Infinity;
  }

  /** The longest focal length of the move, mm. */
  get longest(): number {
    return Math.max(...(this.focal?.keys.map(({ value }) => value) ?? [this.lens.focalLengthMm]));
  }
}
