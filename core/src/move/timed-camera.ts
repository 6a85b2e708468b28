import type { Bounds, Gaze, Lens, Quaternion, Tracks, GazeSpan } from '../document/index.ts';
import type { TurnLimit } from '../gaze/index.ts';
import { anglesOf, toDegrees } from '../geometry/index.ts';
import type { AnchorTimes, Channel } from '../track/index.ts';
import { CameraTracks, tracksClose } from './camera-tracks.ts';
import { gazeText } from './channel-items.ts';
import { layGaze, type LaidGaze, type TargetOf } from './gaze-layers.ts';
import type { GazeOff } from './gaze-off.ts';
import { goesOn } from './gaze-target.ts';
import { within, type CompiledMove, type Looked, type MovePath } from './sample.ts';
import { timedPath } from './timed-path.ts';
import { lensEdges, timedGazes } from './timed-gaze.ts';
import { SampledCamera } from './sampled.ts';
import { tableAt } from './uniform-table.ts';

/** What all cameras share that are placed by time. */
export interface TimedBody {
  gaze: Gaze;
  gazeSpans?: readonly GazeSpan[] | undefined;
  lens: Lens;
  tracks?: Tracks | undefined;
}

/** What a camera that is placed by time is made in. */
export interface TimedSite {
  targetOf: TargetOf;
  reachOf: (gaze: Gaze) => number;
  turning: TurnLimit | null;
  /** From where on a turn is noted, degrees a second. */
  turnNote: number;
  /** Width over height of its pictures. */
  aspect: number;
}

/** How one kind of camera is placed. */
export interface TimedPlaces {
  /** seconds */
  duration: number;
  loops: boolean;
  /** Writes where it is at a time, metres, without allocating. */
  placeAt: (time: number, out: Float64Array, at: number) => void;
  /** The direction that the move itself has, radians. */
  keptAt: (time: number) => { pan: number; tilt: number };
  /** Its lean besides that of the track, radians. */
  leanAt?: (time: number) => number;
  /** Its whole orientation where it looks as the move itself does. */
  orientationAt?: (time: number) => Quaternion;
  anchors: AnchorTimes;
  path: MovePath | null;
  channels: readonly Channel[];
  /** Its eye is held on what it looks at, however fast that goes: the checks say where it turns too fast. */
  locked?: true;
  /** How much longer its lens is at a time than its tracks say. */
  lensFactor?: ((time: number) => number) | undefined;
  away?: Bounds | undefined;
  /** The clock that its tracks go by, where it is another than its own. */
  clock?: ((time: number) => number) | undefined;
  /** Keys of it that hold on to nothing any more. */
  lost?: number;
}

/** What cameras have in common whose pose is known at every instant. */
export function posedPlaces(
  duration: number,
  placeAt: TimedPlaces['placeAt'],
  orientationAt: (time: number) => Quaternion,
): Omit<TimedPlaces, 'channels'> {
  const path = timedPath(duration, placeAt);
  return {
    duration,
    loops: false,
    placeAt,
    orientationAt,
    keptAt: (time) => anglesOf(orientationAt(time)),
    leanAt: (time) => anglesOf(orientationAt(time)).roll,
    anchors: { duration, timeAt: path && ((station) => path.timeAt(station)), stationOf: null },
    path,
  };
}

/** Turning is measured over so long, seconds. */
const TURNED = 0.08;

/** A camera that is placed by time, ready to be asked: what travels, glides, rides and follows have in common. */
export class TimedCamera extends SampledCamera implements CompiledMove {
  readonly duration: number;
  readonly loops: boolean;
  readonly path: MovePath | null;
  readonly channels: readonly Channel[];
  readonly looks: readonly Looked[];
  readonly gazeOff: readonly GazeOff[];
  readonly lostKeys: number;
  readonly ground = null;
  readonly away: Bounds | undefined;
  protected readonly tracks: CameraTracks;
  private readonly gaze: LaidGaze | null;

  constructor(
    body: TimedBody,
    private readonly places: TimedPlaces,
    { targetOf, reachOf, turning, turnNote, aspect }: TimedSite,
  ) {
    super();
    const { duration, anchors, path } = places;
    const spans = body.gazeSpans ?? [];
    const gazes = [body.gaze, ...spans.map(({ gaze }) => gaze)];
    this.duration = duration;
    const still = !gazes.some((gaze) => goesOn(gaze, targetOf));
    this.loops = places.loops && still && tracksClose(body.tracks, anchors);
    this.path = path;
    this.away = places.away;
    this.tracks = new CameraTracks(body.lens, body.tracks, anchors, this.loops, places.lensFactor, places.clock);
    const free = body.gaze.kind === 'kept' && spans.length === 0 && places.orientationAt;
    if (free) this.gaze = null;
    else {
      const wanted = timedGazes({
        duration,
        loops: this.loops,
        eyeAt: places.placeAt,
        keptAt: places.keptAt,
        targetOf,
        edgesAt: lensEdges(this.tracks, aspect),
      });
      // What is held in the frame is held: a bound would let it slip. The checks say where it turns too fast.
      const held = gazes.some((gaze) => 'place' in gaze || 'lead' in gaze);
      this.gaze = layGaze(
        {
          ...{ gaze: body.gaze, spans, duration, loops: this.loops, anchors, targetOf, reachOf },
          turning: body.gaze.kind === 'kept' || held || places.locked ? null : turning,
        },
        wanted(body.gaze, { from: 0, to: duration }),
        wanted,
      );
    }
    this.looks = this.gaze?.looks ?? [];
    this.gazeOff = this.gaze?.off ?? [];
    this.lostKeys = this.tracks.lostKeys + (this.gaze?.lost ?? 0) + (places.lost ?? 0);
    this.channels = [
      ...places.channels,
      {
        id: 'gaze',
        title: 'Gaze',
        unit: '°/s',
        at: (time) => toDegrees(this.turnRateAt(time)),
        band: [0, turnNote],
        items: (this.gaze?.spans ?? []).map(({ id, from, to, gaze }) => {
          return { id, kind: 'gaze' as const, from, to, value: null, about: gazeText(gaze) };
        }),
      },
      ...this.tracks.channels,
    ];
  }

  protected write(instant: number, out: Float64Array, offset: number): void {
    const time = within(instant, this);
    const { places, gaze } = this;
    places.placeAt(time, out, offset);
    if (!gaze) this.tracks.finishFree(time, places.orientationAt!(time), out, offset);
    else {
      const lean = places.leanAt?.(time) ?? 0;
      this.tracks.finish(time, tableAt(gaze.pan, time), tableAt(gaze.tilt, time), out, offset, lean);
    }
  }

  /** How fast it turns, radians a second. */
  private turnRateAt(time: number): number {
    const { gaze, places } = this;
    const [from, to] = [Math.max(0, time - TURNED / 2), Math.min(this.duration, time + TURNED / 2)];
    const long = Math.max(to - from, 1e-6);
    if (!gaze) {
      const [a, b] = [places.orientationAt!(from), places.orientationAt!(to)];
      const dot = Math.abs(a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3]);
      return (2 * Math.acos(Math.min(1, dot))) / long;
    }
    const across = (tableAt(gaze.pan, to) - tableAt(gaze.pan, from)) * Math.cos(tableAt(gaze.tilt, time));
    return Math.hypot(across, tableAt(gaze.tilt, to) - tableAt(gaze.tilt, from)) / long;
  }
}
