import {
  FIRST_LIMITS,
  FIRST_WALKER,
  type Gaze,
  type Vec3,
  type Walk,
  type Walker,
  type WayAnchor,
} from '../document/index.ts';
import type { TurnLimit } from '../gaze/index.ts';
import { toRadians } from '../geometry/index.ts';
import { paceProfile, timeAtStation, type PaceProfile } from '../pace/index.ts';
import { PlanCurve } from '../path/index.ts';
import type { Footing } from '../survey/index.ts';
import { stationOf, TrackCurve, type AnchorTimes, type Channel } from '../track/index.ts';
import { CameraTracks, clockOfWay, tracksClose } from './camera-tracks.ts';
import { profilePath, type FloorProfile } from './floor-profile.ts';
import { findObstacles, type Obstacle } from './in-the-way.ts';
import type { GazeOff } from './gaze-off.ts';
import { goesOn } from './gaze-target.ts';
import { walkChannels } from './walk-channels.ts';
import type { SpanTimes, TargetOf } from './gaze-layers.ts';
import { lensEdges } from './timed-gaze.ts';
import { nodeAnchor } from './node-anchor.ts';
import { wayHeadings } from './way-headings.ts';
import { walkGaze, type WalkGaze } from './walk-gaze.ts';
import { within, type CompiledMove, type Looked, type MovePath, type WalkedGround } from './sample.ts';
import { SampledCamera } from './sampled.ts';
import { tableAt, type UniformTable } from './uniform-table.ts';

interface WalkOptions {
  /** Who walks: how high a step, how much headroom. */
  walker?: Pick<Walker, 'height' | 'step'>;
  /** Where a gaze at an object goes as time does; null where the object stands still. */
  targetOf?: TargetOf;
  /** How near to what is looked at the thing itself begins, metres. */
  reachOf?: (gaze: Gaze) => number;
  /** How fast the eye may turn; without it, it turns as its gaze asks. */
  turning?: TurnLimit | null;
  /** How fast the eye turns of itself where it has the time, degrees a second. */
  comfort?: number;
  /** From where on a turn of the eye is noted, degrees a second. */
  turnNote?: number;
  /** Width over height of its pictures. */
  aspect?: number;
}

/** What is so near to a place that is looked at belongs to it, metres. */
export const ITSELF = 0.15;

/** Turning is measured over so long, seconds. */
const TURNED = 0.08;

/** A walk ready to be played. */
export class CompiledWalk extends SampledCamera implements CompiledMove {
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
  readonly looks: readonly Looked[];
  private readonly gaze: WalkGaze;
  readonly lostKeys: number;
  /** Gaze spans where their anchors have put them, seconds. */
  readonly gazeSpans: readonly SpanTimes[];
  protected readonly tracks: CameraTracks;
  private readonly lift: TrackCurve | null;
  private readonly point = new Float64Array(2);

  /**
   * @param footing what there is to stand on and to come up against
   * @throws RangeError when the path has fewer than two distinct nodes
   */
  constructor(
    private readonly walk: Walk,
    private readonly footing: Footing,
    {
      walker = FIRST_WALKER,
      targetOf = () => null,
      reachOf = () => ITSELF,
      turning = null,
      turnNote = FIRST_LIMITS.turnNote,
      comfort = turnNote,
      aspect = 16 / 9,
    }: WalkOptions = {},
  ) {
    super();
    const closed = walk.path.closed && walk.path.nodes.length > 2;
    this.curve = new PlanCurve(walk.path);
    this.pace = paceProfile(walk.pace, {
      length: this.curve.length,
      stationOf: (anchor) => stationOf(anchor, (id) => this.stationOfNode(id)),
      headings: wayHeadings(walk, {
        length: this.curve.length,
        closed,
        pointAt: (station, out) => this.curve.pointAt(station, out),
        directionAt: (station, out) => this.curve.directionAt(station, out),
      }),
    });
    if (!(this.curve.length > 0)) throw new RangeError('a path needs two nodes in different places');
    this.profile = profilePath(walk.path, this.curve, footing, walker);
    const { walkLine } = this.profile;
    this.eyeLine = { ...walkLine, values: walkLine.values.map((y) => y + walk.eyeHeight) };
    // What looks at something that moves does not end where it began.
    const gazes = [walk.gaze, ...(walk.gazeSpans ?? []).map(({ gaze }) => gaze)];
    const { duration } = this.pace;
    const anchors: AnchorTimes = {
      duration,
      timeAt: (station) => this.timeAt(station),
      stationOf: (id) => this.stationOfNode(id),
    };
    const still = !gazes.some((gaze) => goesOn(gaze, targetOf));
    this.loops = closed && still && tracksClose(walk.tracks, anchors);
    const clock = walk.together ? clockOfWay(this.pace) : undefined;
    this.tracks = new CameraTracks(walk.lens, walk.tracks, anchors, this.loops, null, clock);
    const lift = new TrackCurve(walk.tracks?.lift ?? [], anchors, this.loops);
    this.lift = lift.keys.length > 0 ? lift : null;
    this.lostKeys = this.tracks.lostKeys + lift.lost + (this.pace.lost ?? 0);
    const looked = walkGaze({
      walk,
      curve: this.curve,
      pace: this.pace,
      eyeLine: this.eyeLine,
      lift: this.lift && ((time) => lift.at(time)),
      closed,
      loops: this.loops,
      anchors,
      targetOf,
      reachOf,
      turning,
      comfort: toRadians(comfort),
      edgesAt: lensEdges(this.tracks, aspect),
    });
    this.gaze = looked.gaze;
    this.gazeOff = looked.off;
    this.looks = looked.looks;
    this.gazeSpans = looked.spans;
    this.lostKeys += looked.lost;
    this.channels = [
      ...walkChannels({
        curve: this.curve,
        pace: this.pace,
        profile: this.profile,
        footing,
        eyeLine: this.eyeLine,
        lift: this.lift,
        gazeSpans: this.gazeSpans,
        turnRateAt: (time) => this.turnRateAt(time),
        turnNote,
        timeAt: (station) => this.timeAt(station),
      }),
      ...this.tracks.channels,
    ];
    this.path = this.makePath(closed);
    this.ground = this.makeGround();
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
      anchorAt: (station) => this.anchorAt(station),
      nearest: (x, z) => this.curve.nearest(x, z).station,
    };
  }

  private makeGround(): WalkedGround {
    let met: Obstacle[] | null = null;
    const find = () => findObstacles(this.curve, this.footing, this.profile.walkLine, this.walk.eyeHeight);
    return {
      eyeHeight: this.walk.eyeHeight,
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

  /** How fast the eye turns, radians a second. */
  private turnRateAt(time: number): number {
    const { by, pan, tilt } = this.gaze;
    const [from, to] = [Math.max(0, time - TURNED / 2), Math.min(this.duration, time + TURNED / 2)];
    const at = (table: UniformTable, when: number) => tableAt(table, by === 'time' ? when : this.pace.stationAt(when));
    const across = (at(pan, to) - at(pan, from)) * Math.cos(at(tilt, time));
    return Math.hypot(across, at(tilt, to) - at(tilt, from)) / Math.max(to - from, 1e-6);
  }

  private anchorAt(station: number): WayAnchor {
    return nodeAnchor(this.walk.path.nodes, (i) => this.curve.nodeStations[i]!, station);
  }

  private stationOfNode(id: string): number | null {
    return this.curve.nodeStations[this.walk.path.nodes.findIndex((node) => node.id === id)] ?? null;
  }

  protected write(instant: number, out: Float64Array, offset: number): void {
    const time = within(instant, this);
    const station = this.pace.stationAt(time);
    this.curve.pointAt(station, this.point);
    const { by, pan, tilt } = this.gaze;
    const place = by === 'time' ? time : station;
    out[offset] = this.point[0]!;
    out[offset + 1] = tableAt(this.eyeLine, station) + (this.lift?.at(time) ?? 0);
    out[offset + 2] = this.point[1]!;
    this.tracks.finish(time, tableAt(pan, place), tableAt(tilt, place), out, offset);
  }
}
