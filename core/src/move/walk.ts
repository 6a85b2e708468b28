import type { Lens, Walk } from '../document/index.ts';
import { GAZE_SMOOTHING, gazeAhead, gazeAt } from '../gaze/index.ts';
import { orientationOf } from '../geometry/index.ts';
import { paceProfile, type PaceProfile } from '../pace/index.ts';
import { PlanCurve } from '../path/index.ts';
import type { FloorIndex } from '../survey/index.ts';
import { followFloor, type FloorProfile } from './floor-following.ts';
import { SAMPLE_STRIDE, type CameraSample, type CompiledMove } from './sample.ts';
import { smoothTable, tableAt, type UniformTable } from './uniform-table.ts';

/** A walk ready to be played: the camera at any time, and the lines that the strips draw. */
export class CompiledWalk implements CompiledMove {
  readonly curve: PlanCurve;
  readonly pace: PaceProfile;
  readonly profile: FloorProfile;
  /** Height of the eye by station, metres. */
  readonly eyeLine: UniformTable;
  private readonly pan: UniformTable;
  private readonly tilt: UniformTable;
  private readonly lens: Lens;
  private readonly point = new Float64Array(2);

  /** @throws RangeError when the path has fewer than two distinct nodes */
  constructor(walk: Walk, floor: FloorIndex) {
    this.lens = walk.lens;
    const closed = walk.path.closed && walk.path.nodes.length > 2;
    this.curve = new PlanCurve(walk.path);
    this.pace = paceProfile(walk.pace, this.curve.length);
    this.profile = followFloor(this.curve, floor, walk.path.nodes[0]!.y, closed);
    const { walkLine } = this.profile;
    this.eyeLine = { ...walkLine, values: walkLine.values.map((y) => y + walk.eyeHeight) };
    const eye = this.eyePoints();
    const spacing = this.curve.length / (this.eyeLine.values.length - 1);
    const { gaze } = walk;
    const { pan, tilt } =
      gaze.kind === 'object' ? gazeAt(eye, gaze.point) : gazeAhead(eye, spacing, gaze.distance, closed);
    const table = (values: Float64Array): UniformTable => {
      const exact = { values, length: this.curve.length, closed };
      // What is looked at stays in the middle of the picture.
      return gaze.kind === 'object' ? exact : smoothTable(exact, GAZE_SMOOTHING);
    };
    this.pan = table(pan);
    this.tilt = table(tilt);
  }

  get duration(): number {
    return this.pace.duration;
  }

  sampleAt(time: number): CameraSample {
    const station = this.pace.stationAt(time);
    this.curve.pointAt(station, this.point);
    return {
      position: [this.point[0]!, tableAt(this.eyeLine, station), this.point[1]!],
      orientation: orientationOf({ pan: tableAt(this.pan, station), tilt: tableAt(this.tilt, station), roll: 0 }),
      lens: this.lens,
    };
  }

  fill(times: ArrayLike<number>, out: Float64Array): void {
    for (let i = 0; i < times.length; i += 1) {
      const { position, orientation, lens } = this.sampleAt(times[i]!);
      const o = i * SAMPLE_STRIDE;
      for (let k = 0; k < 3; k += 1) out[o + k] = position[k]!;
      for (let k = 0; k < 4; k += 1) out[o + 3 + k] = orientation[k]!;
      out[o + 7] = lens.focalLengthMm;
    }
  }

  private eyePoints(): Float64Array {
    const heights = this.eyeLine.values;
    const count = heights.length;
    const stations = Float64Array.from({ length: count }, (_, i) => (this.curve.length * i) / (count - 1));
    const plan = new Float64Array(2 * count);
    this.curve.pointsAt(stations, plan);
    const eye = new Float64Array(3 * count);
    for (let i = 0; i < count; i += 1) {
      eye[3 * i] = plan[2 * i]!;
      eye[3 * i + 1] = heights[i]!;
      eye[3 * i + 2] = plan[2 * i + 1]!;
    }
    return eye;
  }
}
