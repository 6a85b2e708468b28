import { DEFAULT_LENS, type BodyOf, type Key, type Pivot, type Tracks, type Vec3 } from '@eskovan/core/document';
import { orientationOf } from '@eskovan/core/geometry';
import { DECK, FLOOR } from '../building/dimensions.ts';
import { atTheStop } from '../shuttle/ride.ts';
import { idOf } from './id.ts';
import { poseAt, type Point } from './pose.ts';

type Move = { name: string; body: BodyOf<'move'> };

/** A value that changes from the beginning of a move to its end. */
const fromTo = (what: string, seconds: number, first: number, last: number): Key[] =>
  [first, last].map((value, i) => ({
    id: idOf(`${what} ${i}`),
    anchor: { by: 'time', time: i * seconds },
    value,
    ease: 'smooth',
  }));

const SCOPE: Extract<Pivot, { kind: 'object' }> = {
  kind: 'object',
  model: idOf('model scope'),
  name: 'Heron field scope / Tube',
  whole: false,
  point: [22.2, DECK + 1.42, 1.5],
};

const turntable: Move = {
  name: 'Turntable of the scope',
  body: {
    kind: 'orbit',
    pivot: { ...SCOPE, whole: true },
    start: -0.55,
    sweep: 2 * Math.PI,
    inclination: 0.06,
    distance: { by: 'radius', radius: 3 },
    duration: 5,
    shape: 'ease both',
    turns: 'subject',
    lightStands: true,
    lens: { ...DEFAULT_LENS, focalLengthMm: 40 },
    tracks: {
      focalLength: fromTo('turntable lens', 5, 40, 85),
      // While it comes nearer, the eye is raised from the tripod to the tube.
      pedestal: fromTo('turntable pedestal', 5, 0, 0.42),
    } satisfies Tracks,
  },
};

const past: Move = {
  name: 'Past the brass',
  body: {
    kind: 'orbit',
    pivot: SCOPE,
    start: -0.85,
    sweep: -0.2 * Math.PI,
    inclination: 0.04,
    distance: { by: 'radius', radius: 1.5 },
    duration: 6,
    shape: 'constant',
    rise: 0.14,
    lens: { ...DEFAULT_LENS, focalLengthMm: 80 },
    tracks: {
      focalLength: fromTo('brass lens', 6, 80, 105),
      roll: fromTo('brass roll', 6, -4, 4),
    } satisfies Tracks,
  },
};

const DIVE: readonly Point[] = [
  [66, 27, 60],
  [53, 15, 45],
  [43, 6, 32],
  [37, 2.6, 23],
  [30.5, 2.2, 13.5],
];

const dive: Move = {
  name: 'Down into the channel',
  body: {
    kind: 'glide',
    path: {
      closed: false,
      nodes: DIVE.map(([x, y, z], i) => ({ id: idOf(`dive ${i}`), x, y, z, kind: 'smooth', radius: 0.5 })),
    },
    height: { by: 'drawn' },
    pace: { by: 'duration', speed: 8, duration: 12, shape: 'ease both' },
    gaze: { kind: 'ahead', distance: 9 },
    lens: { ...DEFAULT_LENS, focalLengthMm: 22 },
  },
};

const stop = atTheStop();
/** Where the shuttle goes first. */
const heading = [Math.cos(stop.pan), 0, -Math.sin(stop.pan)] as const;
const CAR = { model: idOf('model shuttle'), name: 'Shuttle / Car / Body' };
/** The middle of its body over its origin, metres. */
const MIDDLE = 1.4;
const middle: Vec3 = [stop.at[0], stop.at[1] + MIDDLE, stop.at[2]];

const ride: Move = {
  name: 'On the shuttle',
  body: {
    kind: 'ride',
    carrier: { ...CAR, centre: middle },
    seat: [-0.2 * heading[0], 1.78, -0.2 * heading[2]],
    facing: orientationOf({ pan: Math.atan2(-heading[0], -heading[2]), tilt: -0.06, roll: 0 }),
    softness: 0.4,
    horizon: 'level',
    duration: 16,
    gaze: { kind: 'kept' },
    lens: { ...DEFAULT_LENS, focalLengthMm: 24 },
  },
};

const follow: Move = {
  name: 'Beside the rail',
  body: {
    kind: 'follow',
    position: [24.5, 1.7, -14.5],
    duration: 14,
    gaze: { kind: 'object', ...CAR, point: middle, centre: middle, place: [0, -0.15], lead: 0.3 },
    lens: { ...DEFAULT_LENS, focalLengthMm: 40 },
  },
};

const SOUTH: readonly [time: number, hold: number, from: Point, to: Point][] = [
  [0, 0, [44, 5.5, 36], [14, 3, 6]],
  [4, 0, [33, 3, 29], [13, 3.2, 7]],
  [8, 2, [26.5, 1.75, 25], [13, 3.4, 8]],
];

const travel: Move = {
  name: 'To the south front',
  body: {
    kind: 'travel',
    poses: SOUTH.map(([time, hold, from, to], i) => {
      const { position, orientation } = poseAt(from, to);
      return { id: idOf(`south ${i}`), time, hold, position, orientation, span: 'smooth' };
    }),
    turning: 'level',
    ends: 'rest',
    gaze: { kind: 'kept' },
    lens: { ...DEFAULT_LENS, focalLengthMm: 28 },
  },
};

const EYE = FLOOR + 1.55;

/** The lamps of the café dim while it closes: see the actions. */
const closing: Move = {
  name: 'Closing time in the café',
  body: {
    kind: 'travel',
    poses: (
      [
        [0, [16.9, EYE, 5.1], [22.4, EYE - 0.35, 1.6]],
        [9, [18.3, EYE - 0.1, 4.6], [22.4, EYE - 0.3, 2.1]],
      ] as const
    ).map(([time, from, to], i) => {
      const { position, orientation } = poseAt([...from], [...to]);
      return { id: idOf(`closing ${i}`), time, hold: 0, position, orientation, span: 'smooth' };
    }),
    turning: 'level',
    ends: 'rest',
    gaze: { kind: 'kept' },
    light: idOf('light Dusk, lamps on'),
    lens: { ...DEFAULT_LENS, focalLengthMm: 24 },
  },
};

/** One of each kind besides the walks: turning, passing, diving, riding, following, travelling; and lamps that dim. */
export const OTHER_MOVES: readonly Move[] = [turntable, past, dive, ride, follow, travel, closing];
