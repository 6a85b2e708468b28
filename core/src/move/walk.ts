import { FIRST_WALKER, type Lens, type Vec3, type Walk, type Walker } from '../document/index.ts';
import { GAZE_SMOOTHING, gazeAhead, gazeAt } from '../gaze/index.ts';
import { orientationOf } from '../geometry/index.ts';
import { paceProfile, type PaceProfile } from '../pace/index.ts';
import { PlanCurve } from '../path/index.ts';
import type { Footing } from '../survey/index.ts';
import { profileFloor, type FloorProfile } from './floor-profile.ts';
import { findObstacles, type Obstacle } from './in-the-way.ts';
import { SAMPLE_STRIDE, type CameraSample, type CompiledMove } from './sample.ts';
import { smoothTable, tableAt, type UniformTable } from './uniform-table.ts';

/** A gaze at something that moves is worked out so often, seconds: good to a hundredth of a degree, passing closely. */
const GAZE_INSTANT = 0.02;

interface WalkOptions {
  /** Who walks: how high a step, how much headroom. */
  walker?: Pick<Walker, 'height' | 'step'>;
  /** Where a gaze at an object goes as time does; without it the object stands still. */
  target?: ((time: number) => Vec3) | null;
}

/** A walk ready to be played: the camera at any time, and the lines that the strips draw. */
export class CompiledWalk implements CompiledMove {
  readonly curve: PlanCurve;
  readonly pace: PaceProfile;
  readonly profile: FloorProfile;
  /** Height of the eye by station, metres. */
  readonly eyeLine: UniformTable;
  private readonly gaze: { by: 'station' | 'time'; pan: UniformTable; tilt: UniformTable };
  private readonly lens: Lens;
  private readonly point = new Float64Array(2);
  private met: Obstacle[] | null = null;

  /**
   * @param footing what there is to stand on and to come up against
   * @throws RangeError when the path has fewer than two distinct nodes
   */
  constructor(
    private readonly walk: Walk,
    private readonly footing: Footing,
    { walker = FIRST_WALKER, target = null }: WalkOptions = {},
  ) {
    this.lens = walk.lens;
    const closed = walk.path.closed && walk.path.nodes.length > 2;
    this.curve = new PlanCurve(walk.path);
    this.pace = paceProfile(walk.pace, this.curve.length);
    if (!(this.curve.length > 0)) throw new RangeError('a path needs two nodes in different places');
    const anchors = walk.path.nodes.map(({ y, surface }, i) => ({
      station: this.curve.nodeStations[i]!,
      y,
      loose: !surface,
    }));
    this.profile = profileFloor(this.curve, footing, walker, anchors, closed);
    const { walkLine } = this.profile;
    this.eyeLine = { ...walkLine, values: walkLine.values.map((y) => y + walk.eyeHeight) };
    const { length } = this.curve;
    const steps = this.eyeLine.values.length - 1;
    const { gaze } = walk;
    if (gaze.kind === 'ahead') {
      const eye = this.eyePoints(steps, (part) => part * length);
      const { pan, tilt } = gazeAhead(eye, length / steps, gaze.distance, closed);
      const soft = (values: Float64Array) => smoothTable({ values, length, closed }, GAZE_SMOOTHING);
      this.gaze = { by: 'station', pan: soft(pan), tilt: soft(tilt) };
    } else if (target) {
      const { duration } = this.pace;
      const instants = Math.max(1, Math.ceil(duration / GAZE_INSTANT));
      const eye = this.eyePoints(instants, (part) => this.pace.stationAt(part * duration));
      const points = new Float64Array(eye.length);
      for (let i = 0; i <= instants; i += 1) points.set(target((duration * i) / instants), 3 * i);
      const { pan, tilt } = gazeAt(eye, points);
      const table = (values: Float64Array) => ({ values, length: duration, closed: false });
      this.gaze = { by: 'time', pan: table(pan), tilt: table(tilt) };
    } else {
      // What is looked at stays in the middle of the picture: nothing is smoothed.
      const { pan, tilt } = gazeAt(
        this.eyePoints(steps, (part) => part * length),
        gaze.point,
      );
      const table = (values: Float64Array) => ({ values, length, closed });
      this.gaze = { by: 'station', pan: table(pan), tilt: table(tilt) };
    }
  }

  get duration(): number {
    return this.pace.duration;
  }

  /** What the walker's body goes through; worked out when first asked. */
  get obstacles(): readonly Obstacle[] {
    return (this.met ??= findObstacles(this.curve, this.footing, this.profile.walkLine, this.walk.eyeHeight));
  }

  /** Is it known what stands in the way? */
  get knowsObstacles(): boolean {
    return this.footing.knowsSolids;
  }

  /** The place on the floor at a station, metres. */
  placeAt(station: number): Vec3 {
    this.curve.pointAt(station, this.point);
    return [this.point[0]!, tableAt(this.profile.floor, station), this.point[1]!];
  }

  /** When the walker passes a station, seconds: the pace never runs backward, so halving finds it. */
  timeAt(station: number): number {
    let [low, high] = [0, this.duration];
    for (let i = 0; i < 50; i += 1) {
      const middle = (low + high) / 2;
      if (this.pace.stationAt(middle) < station) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  }

  sampleAt(time: number): CameraSample {
    const station = this.pace.stationAt(time);
    this.curve.pointAt(station, this.point);
    const { by, pan, tilt } = this.gaze;
    const place = by === 'time' ? time : station;
    return {
      position: [this.point[0]!, tableAt(this.eyeLine, station), this.point[1]!],
      orientation: orientationOf({ pan: tableAt(pan, place), tilt: tableAt(tilt, place), roll: 0 }),
      lens: this.lens,
      time,
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

  /** Where the eye is at `steps` + 1 stations; these are given for parts 0…1 of the way. */
  private eyePoints(steps: number, stationAt: (part: number) => number): Float64Array {
    const stations = Float64Array.from({ length: steps + 1 }, (_, i) => stationAt(i / steps));
    const plan = new Float64Array(2 * stations.length);
    this.curve.pointsAt(stations, plan);
    const eye = new Float64Array(3 * stations.length);
    stations.forEach((station, i) => {
      eye[3 * i] = plan[2 * i]!;
      eye[3 * i + 1] = tableAt(this.eyeLine, station);
      eye[3 * i + 2] = plan[2 * i + 1]!;
    });
    return eye;
  }
}
