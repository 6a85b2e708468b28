import { FIRST_WALKER, type Vec3, type Walk, type Walker } from '../document/index.ts';
import { GAZE_SMOOTHING, gazeAhead, gazeAt, limitTurning, type TurnLimit } from '../gaze/index.ts';
import { writeOrientation } from '../geometry/index.ts';
import { paceProfile, timeAtStation, type PaceProfile } from '../pace/index.ts';
import { PlanCurve } from '../path/index.ts';
import type { Footing } from '../survey/index.ts';
import type { Channel } from '../track/index.ts';
import { profileFloor, type FloorProfile } from './floor-profile.ts';
import { findObstacles, type Obstacle } from './in-the-way.ts';
import { stretchesOff, type GazeOff } from './gaze-off.ts';
import { MoveLens } from './move-lens.ts';
import {
  SAMPLE_STRIDE,
  sampleOf,
  within,
  type CameraSample,
  type CompiledMove,
  type MovePath,
  type WalkedGround,
} from './sample.ts';
import { smoothTable, tableAt, type UniformTable } from './uniform-table.ts';

/** A gaze at something that moves is worked out so often, seconds: good to a hundredth of a degree, passing closely. */
const GAZE_INSTANT = 0.02;

interface WalkOptions {
  /** Who walks: how high a step, how much headroom. */
  walker?: Pick<Walker, 'height' | 'step'>;
  /** Where a gaze at an object goes as time does; without it the object stands still. */
  target?: ((time: number) => Vec3) | null;
  /** How fast the eye may turn; without it, it turns as its gaze asks. */
  turning?: TurnLimit | null;
}

/** Comfortable walking, m/s (common practice for walkthroughs). */
const COMFORT = [0.8, 1.4] as const;

/** Where a walk looks, by station or by time, radians. */
interface WalkGaze {
  by: 'station' | 'time';
  pan: UniformTable;
  tilt: UniformTable;
}

/** A walk ready to be played. */
export class CompiledWalk implements CompiledMove {
  readonly loops: boolean;
  readonly channels: readonly Channel[];
  readonly path: MovePath;
  readonly ground: WalkedGround;
  readonly curve: PlanCurve;
  readonly pace: PaceProfile;
  readonly profile: FloorProfile;
  /** Height of the eye by station, metres. */
  readonly eyeLine: UniformTable;
  readonly gazeOff: readonly GazeOff[];
  private readonly gaze: WalkGaze;
  private readonly lens: MoveLens;
  private readonly point = new Float64Array(2);
  private readonly scratch = new Float64Array(SAMPLE_STRIDE);

  /**
   * @param footing what there is to stand on and to come up against
   * @throws RangeError when the path has fewer than two distinct nodes
   */
  constructor(
    private readonly walk: Walk,
    private readonly footing: Footing,
    { walker = FIRST_WALKER, target = null, turning = null }: WalkOptions = {},
  ) {
    const closed = walk.path.closed && walk.path.nodes.length > 2;
    this.curve = new PlanCurve(walk.path);
    this.pace = paceProfile(walk.pace, this.curve.length);
    if (!(this.curve.length > 0)) throw new RangeError('a path needs two nodes in different places');
    const nodes = walk.path.nodes.map(({ y, surface }, i) => ({
      station: this.curve.nodeStations[i]!,
      y,
      loose: !surface,
    }));
    this.profile = profileFloor(this.curve, footing, walker, nodes, closed);
    const { walkLine } = this.profile;
    this.eyeLine = { ...walkLine, values: walkLine.values.map((y) => y + walk.eyeHeight) };
    const steps = this.eyeLine.values.length - 1;
    this.loops = closed && !target;
    const wanted = this.wantedGaze(steps, closed, target);
    const bounded = turning && this.boundedGaze(wanted, turning);
    this.gaze = bounded?.gaze ?? wanted;
    this.gazeOff = bounded?.off ?? [];
    const { duration } = this.pace;
    const anchors = {
      duration,
      timeAt: (station: number) => this.timeAt(station),
      stationOf: (id: string) => this.curve.nodeStations[walk.path.nodes.findIndex((node) => node.id === id)] ?? null,
    };
    this.lens = new MoveLens(walk.lens, walk.tracks, anchors, this.loops);
    this.channels = this.makeChannels();
    this.path = this.makePath(closed);
    this.ground = this.makeGround();
  }

  /** Where the eye would look if it could turn as it liked. */
  private wantedGaze(steps: number, closed: boolean, target: WalkOptions['target']): WalkGaze {
    const { gaze } = this.walk;
    const { length } = this.curve;
    if (gaze.kind === 'ahead') {
      const eye = this.eyePoints(steps, (part) => part * length);
      const { pan, tilt } = gazeAhead(eye, length / steps, gaze.distance, closed);
      const soft = (values: Float64Array) => smoothTable({ values, length, closed }, GAZE_SMOOTHING);
      return { by: 'station', pan: soft(pan), tilt: soft(tilt) };
    } else if (target) {
      const { duration } = this.pace;
      const instants = Math.max(1, Math.ceil(duration / GAZE_INSTANT));
      const eye = this.eyePoints(instants, (part) => this.pace.stationAt(part * duration));
      const points = new Float64Array(eye.length);
      for (let i = 0; i <= instants; i += 1) points.set(target((duration * i) / instants), 3 * i);
      const { pan, tilt } = gazeAt(eye, points);
      const table = (values: Float64Array) => ({ values, length: duration, closed: false });
      return { by: 'time', pan: table(pan), tilt: table(tilt) };
    } else {
      // What is looked at stays in the middle of the picture: nothing is smoothed.
      const { pan, tilt } = gazeAt(
        this.eyePoints(steps, (part) => part * length),
        gaze.point,
      );
      const table = (values: Float64Array) => ({ values, length, closed });
      return { by: 'station', pan: table(pan), tilt: table(tilt) };
    }
  }

  /** The same with bounds, and where they keep the eye from what it is to look at. */
  private boundedGaze({ by, pan, tilt }: WalkGaze, limit: TurnLimit): { gaze: WalkGaze; off: GazeOff[] } {
    const { duration } = this.pace;
    const instants = Math.max(2, Math.ceil(duration / GAZE_INSTANT));
    const step = duration / instants;
    const places = Float64Array.from({ length: instants + 1 }, (_, i) =>
      by === 'time' ? i * step : this.pace.stationAt(i * step),
    );
    const wanted = {
      pan: places.map((place) => tableAt(pan, place)),
      tilt: places.map((place) => tableAt(tilt, place)),
    };
    const turn = this.loops ? wanted.pan[instants]! - wanted.pan[0]! : null;
    const kept = limitTurning(wanted, step, limit, turn);
    const table = (values: Float64Array) => ({ values, length: duration, closed: this.loops });
    return {
      gaze: { by: 'time', pan: table(kept.pan), tilt: table(kept.tilt) },
      off: stretchesOff(wanted, kept, step),
    };
  }

  private makeChannels(): Channel[] {
    const along = (table: UniformTable) => (time: number) => tableAt(table, this.pace.stationAt(time));
    return [
      {
        id: 'section',
        title: 'Section',
        unit: 'm',
        at: along(this.eyeLine),
        under: { title: 'Floor', at: along(this.profile.floor) },
      },
      { id: 'pace', title: 'Pace', unit: 'm/s', at: (time) => this.pace.speedAt(time), band: COMFORT },
      ...this.lens.channels,
    ];
  }

  private makePath(closed: boolean): MovePath {
    return {
      length: this.curve.length,
      closed,
      topSpeed: this.pace.cruise,
      stationAt: (time) => this.pace.stationAt(time),
      timeAt: (station) => this.timeAt(station),
      pointAt: (station, out) => this.curve.pointAt(station, out),
      placeAt: (station) => this.placeAt(station),
      nearest: (x, z) => this.curve.nearest(x, z).station,
    };
  }

  private makeGround(): WalkedGround {
    let met: Obstacle[] | null = null;
    const find = () => findObstacles(this.curve, this.footing, this.profile.walkLine, this.walk.eyeHeight);
    return {
      gaps: this.profile.gaps,
      get obstacles() {
        return (met ??= find());
      },
      knowsObstacles: this.footing.knowsSolids,
    };
  }

  get duration(): number {
    return this.pace.duration;
  }

  /** The place on the floor at a station, metres. */
  placeAt(station: number): Vec3 {
    this.curve.pointAt(station, this.point);
    return [this.point[0]!, tableAt(this.profile.floor, station), this.point[1]!];
  }

  /** When the walker passes a station, seconds. */
  timeAt(station: number): number {
    return timeAtStation(this.pace, station);
  }

  get lostKeys(): number {
    return this.lens.lostKeys;
  }

  sampleAt(time: number): CameraSample {
    this.write(time, this.scratch, 0);
    return sampleOf(this.scratch, this.lens.viewAt(within(time, this)), time);
  }

  fill(times: ArrayLike<number>, out: Float64Array): void {
    for (let i = 0; i < times.length; i += 1) this.write(times[i]!, out, i * SAMPLE_STRIDE);
  }

  private write(instant: number, out: Float64Array, offset: number): void {
    const time = within(instant, this);
    const station = this.pace.stationAt(time);
    this.curve.pointAt(station, this.point);
    const { by, pan, tilt } = this.gaze;
    const place = by === 'time' ? time : station;
    out[offset] = this.point[0]!;
    out[offset + 1] = tableAt(this.eyeLine, station);
    out[offset + 2] = this.point[1]!;
    writeOrientation(tableAt(pan, place), tableAt(tilt, place), out, offset + 3);
    this.lens.write(time, out, offset + 7);
    out[offset + 10] = 0;
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
