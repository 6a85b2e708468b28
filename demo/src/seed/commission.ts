import {
  DEFAULT_LENS,
  projectBodySchema,
  type BodyOf,
  type PathNode,
  type Repeat,
  type Walk,
  type Vec3,
} from '@eskovan/core/document';
import { straightened } from '@eskovan/core/framing';
import { startingLight, type LightStart } from '@eskovan/core/site';
import { DECK, FLOOR, STAIR } from '../building/dimensions.ts';
import type { CommissionModel } from '../commission-models.ts';
import { atTheStop } from '../shuttle/ride.ts';
import { idOf } from './id.ts';
import { OTHER_MOVES } from './other-moves.ts';
import { poseAt, type Point } from './pose.ts';
import { BOARDWALK_HEIGHT, BOARDWALK_WAY } from '../site/boardwalk.ts';

export const PROJECT: BodyOf<'project'> = projectBodySchema.parse({
  client: 'Ternholm Parish',
  storeyNames: [{ elevation: DECK, name: 'Viewing deck' }],
  roomNames: [
    { at: [3.9, FLOOR, 4.4], name: 'Reading room' },
    { at: [12.5, FLOOR, 5], name: 'Hall' },
    { at: [18, FLOOR, 3.6], name: 'Café' },
    { at: [20.7, FLOOR, 8.7], name: 'Tide gallery' },
    { at: [3.8, FLOOR, 9.9], name: 'Workshop' },
    { at: [20, DECK, 2.1], name: 'Deck' },
    { at: [14, DECK, 4.4], name: 'Bridge' },
  ],
});

type Stop = readonly [x: number, z: number, y?: number, kind?: PathNode['kind']];

/** What a walk has besides its path and its speed; places are nodes, by number. */
interface Shaped {
  pause: { node: number; seconds: number };
  look: { point: Vec3; from: { node: number; offset: number }; to: { node: number; offset: number }; handOver: number };
}

/** Corners are taken so that the picture turns no faster, degrees a second. */
const TURNING = 30;

function shapedParts(name: string, { pause, look }: Shaped) {
  const at = ({ node, offset = 0 }: { node: number; offset?: number }) => ({
    by: 'node' as const,
    node: idOf(`${name} node ${node}`),
    offset,
  });
  return {
    pace: { pauses: [{ id: idOf(`${name} pause`), anchor: at(pause), seconds: pause.seconds }] },
    gazeSpans: [
      {
        id: idOf(`${name} look`),
        from: at(look.from),
        to: at(look.to),
        gaze: { kind: 'point' as const, point: look.point },
        handOver: look.handOver,
      },
    ],
  };
}

function walk(
  name: string,
  stops: readonly Stop[],
  options: { closed?: boolean; speed?: number; focalLengthMm?: number; gaze?: Walk['gaze']; shaped?: Shaped } = {},
): { name: string; body: BodyOf<'move'> } {
  const shaped = options.shaped && shapedParts(name, options.shaped);
  return {
    name,
    body: {
      kind: 'walk',
      path: {
        closed: options.closed ?? false,
        nodes: stops.map(([x, z, y = FLOOR, kind = 'smooth'], i) => ({
          id: idOf(`${name} node ${i}`),
          x,
          y,
          z,
          surface: true as const,
          kind,
          radius: 0.8,
        })),
      },
      eyeHeight: 1.6,
      pace: {
        ...{ by: 'speed', speed: options.speed ?? 1.2, duration: 10, shape: 'soft' },
        ...(!options.gaze && { turning: TURNING }),
        ...shaped?.pace,
      },
      gaze: options.gaze ?? { kind: 'ahead', distance: 2.2 },
      lens: { ...DEFAULT_LENS, focalLengthMm: options.focalLengthMm ?? 22 },
      ...(shaped && { gazeSpans: shaped.gazeSpans }),
    },
  };
}

const stairX = STAIR.west + STAIR.width / 2;

export const MOVES = [
  walk('Arrival to the tide gallery', [
    [12.6, -12, 0],
    [12.2, -6, 0],
    [12, -1.2],
    [12.2, 2.4],
    [13.9, 5.2],
    [14.4, 7.7],
    [16.2, 8.7],
    [17.7, 8.1],
    [19.3, 7.4],
    [21.2, 7.6],
  ]),
  walk(
    'Up to the viewing deck',
    [
      [12.4, 2.2],
      [13.7, 5.2],
      [13.2, 8.1],
      [10.2, 8.3],
      [9.9, 10.4],
      [stairX, 11.2, FLOOR, 'corner'],
      [stairX, 10.2],
      [stairX, 5.3, DECK],
      [stairX + 0.1, 4.3, DECK, 'corner'],
      [12, 4.25, DECK],
      [16.2, 4.25, DECK],
      [18.2, 3.6, DECK],
      [20.2, 3.4, DECK],
    ],
    {
      shaped: {
        // On the bridge one stands for a moment and looks down into the hall, without turning one's head in haste.
        pause: { node: 9, seconds: 6 },
        look: {
          point: [12.6, FLOOR + 0.8, 8.8],
          from: { node: 9, offset: -3 },
          to: { node: 9, offset: 3 },
          handOver: 6.4,
        },
      },
    },
  ),
  walk(
    'Around the tide table',
    [
      [18.1, 9.2],
      [19, 10.6],
      [20.6, 10.6],
      [21.5, 9.2],
      [20.6, 7.8],
      [19, 7.8],
    ],
    { closed: true, speed: 0.9, focalLengthMm: 24 },
  ),
  walk(
    'Along the boardwalk',
    [
      // Along the south front, round the corner of the house, and from the terrace onto the boards.
      [20.8, 13.3, 0],
      [24.3, 13.2, 0],
      [25.1, 11.8, 0],
      [25, 9, 0],
      [25.6, 7.2, 0],
      ...BOARDWALK_WAY.slice(1).map(([x, z]): Stop => [x, z, BOARDWALK_HEIGHT]),
      [42.4, 31.6, BOARDWALK_HEIGHT],
    ],
    { speed: 1.3, focalLengthMm: 24 },
  ),
  walk(
    'Waiting for the shuttle',
    [
      // Between the tufts of grass, and up to the lamps beside the platform.
      [2.5, -10.3, 0],
      [6, -12.2, 0],
      [11, -13.2, 0],
      [15.6, -13.4, 0],
    ],
    {
      speed: 0.9,
      focalLengthMm: 28,
      // Wherever it goes: the middle of the car.
      gaze: {
        kind: 'object',
        model: idOf('model shuttle'),
        name: 'Shuttle / Car / Body',
        point: [...atTheStop().at],
        centre: [...atTheStop().at],
      },
    },
  ),
  {
    name: 'About the field scope',
    body: {
      kind: 'orbit',
      pivot: { kind: 'point', point: [22.2, DECK + 0.95, 1.5] },
      // From the south to the west of it: behind it are windows.
      start: -0.2,
      sweep: -1.25,
      inclination: 0.16,
      distance: { by: 'radius', radius: 2 },
      duration: 8,
      shape: 'ease both',
      lens: { ...DEFAULT_LENS, focalLengthMm: 38 },
      tracks: {
        focalLength: [
          { id: idOf('scope lens 1'), anchor: { by: 'time', time: 0 }, value: 34, ease: 'smooth' },
          { id: idOf('scope lens 2'), anchor: { by: 'time', time: 8 }, value: 52, ease: 'smooth' },
        ],
      },
    } satisfies BodyOf<'move'>,
  },
  ...OTHER_MOVES,
] as const;

/** What moves while a move plays: as the models' files have it. */
export const ACTIONS = [
  doorOpens('West', Math.PI / 2),
  doorOpens('East', -Math.PI / 2),
  recorded('Shuttle leaves for the hill', 'shuttle', 'Ride round the hill', 'to and fro'),
  recorded('Focusing the scope', 'scope', 'Focus', 'to and fro'),
  lampsDim('Lamps of the café', 'Café / Pendants', 0.3),
] as const;

function recorded(
  name: string,
  model: CommissionModel['key'],
  movement: string,
  repeat: Repeat,
): { name: string; body: BodyOf<'action'> } {
  return { name, body: { kind: 'recorded', model: idOf(`model ${model}`), start: 0, movement, speed: 1, repeat } };
}

/** The leaves of the entrance stand open in the model: they begin shut, and open while one arrives. */
function doorOpens(side: 'West' | 'East', angle: number): { name: string; body: BodyOf<'action'> } {
  return {
    name: `${side} entrance door`,
    body: {
      kind: 'hinge',
      model: idOf('model observatory'),
      part: `Building / Entrance doors / ${side} door`,
      start: 3,
      end: 'low',
      angle,
      back: true,
      seconds: 2.5,
      shape: 'ease both',
      repeat: 'once',
    },
  };
}

function lampsDim(name: string, part: string, to: number): { name: string; body: BodyOf<'action'> } {
  const model = idOf('model observatory');
  return {
    name,
    body: { kind: 'dim', model, part, start: 2, seconds: 5, from: 1, to, shape: 'ease both', repeat: 'once' },
  };
}

/** The project's own light is an afternoon; these are the others. */
export const LIGHTS = [light('Morning'), light('Dusk, lamps on'), light('Overcast')] as const;

function light(start: LightStart): { name: string; body: BodyOf<'light'> } {
  return { name: start, body: { ...startingLight(start, PROJECT.sun), picture: null } };
}

/** Steeper than this one looks up or down on purpose, radians: less is mended by a shifted lens. */
const ON_PURPOSE = 0.15;

function view(
  name: string,
  from: Point,
  to: Point,
  focalLengthMm = 24,
  seenIn?: LightStart,
): { name: string; body: BodyOf<'view'> } {
  const { tilt, ...pose } = poseAt(from, to);
  const seen = {
    pose,
    lens: { ...DEFAULT_LENS, focalLengthMm },
  };
  return {
    name,
    body: {
      ...((Math.abs(tilt) < ON_PURPOSE && straightened(seen)) || seen),
      light: seenIn ? idOf(`light ${seenIn}`) : null,
      thumbnail: null,
    },
  };
}

const eye = FLOOR + 1.6;

export const VIEWS = [
  view('Hall and its terns', [14.9, eye, 5.5], [10.6, eye + 0.55, 11], 19),
  view('Tide gallery', [16.9, eye, 7.5], [22, eye - 0.25, 10], 22),
  view('Arrival from the marsh', [3.6, 1.75, -12.5], [11.5, 3.1, 0], 26),
  view('From the bridge', [14.6, DECK + 1.6, 4.5], [10.5, DECK - 0.4, 11], 22),
  view('Deck bench, seated', [20.6, DECK + 1.2, 4.6], [18.6, DECK + 1.15, 0], 24),
  view('Reading room', [7.1, eye, 1.1], [1.6, eye - 0.3, 5], 22),
  view('Café corner', [16.9, eye, 5.1], [22.4, eye - 0.35, 1.6], 24),
  view('South front at low tide', [26.5, 1.75, 27], [13, 3.4, 8], 32),
  view('Heron field scope', [20.55, DECK + 1.3, 3.1], [22.2, DECK + 0.98, 1.5], 38),
  view('Boardwalk and channel', [27.6, 3.1, 10.6], [36.5, 0.7, 25], 24),
  view('Shuttle at its stop', [20.5, 1.7, -12.2], [10.6, 1.25, -20.4], 28),
  view('South front at dusk', [24.5, 1.9, 24.5], [13.4, 3.2, 8], 30, 'Dusk, lamps on'),
  view('Hall at dusk', [14.9, eye, 5.5], [10.6, eye + 0.55, 11], 19, 'Dusk, lamps on'),
] as const;
