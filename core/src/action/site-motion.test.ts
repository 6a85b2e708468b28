import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { BoxGeometry, Matrix4, Vector3 } from 'three';
import { actionBodySchema, AS_IT_CAME, type Vec3 } from '../document/index.ts';
import { partOf } from '../format/geometry-part.fixture.ts';
import { PLAIN_MATERIAL, type SceneModel, type ScenePart } from '../format/index.ts';
import { pickSite, placeActions, SiteMotion, timeWithin, type SiteAction } from './index.ts';

const MODEL = '00000000-0000-4000-8000-000000000001';

const box = (name: string, at: Vec3, more: Partial<ScenePart> = {}): ScenePart =>
  partOf(new BoxGeometry(1, 1, 1).translate(...at), { name, model: MODEL, ...more });

const still = { rotation: [0, 0, 0, 1], scale: [1, 1, 1] } as const;
const identity = new Matrix4().toArray();
/** A car on a rail with a wheel below it; a movement for each. */
const site = (): SceneModel => ({
  parts: [
    box('Car / Body', [0, 1, 0], { joint: 0 }),
    box('Car / Wheel', [2, 0, 0], { joint: 1 }),
    box('House', [0, 0, 10]),
  ],
  materials: [PLAIN_MATERIAL],
  textures: [],
  joints: [
    { name: 'Car', parent: null, hang: identity, rest: { translation: [0, 0, 0], ...copy(still) } },
    { name: 'Wheel', parent: 0, hang: identity, rest: { translation: [2, 0, 0], ...copy(still) } },
  ],
  movements: [
    {
      name: 'Drive',
      model: MODEL,
      duration: 4,
      targets: ['Car'],
      tracks: [
        {
          joint: 0,
          of: 'translation',
          between: 'linear',
          times: Float32Array.of(0, 4),
          values: Float32Array.of(0, 0, 0, 8, 0, 0),
        },
      ],
    },
    {
      name: 'Roll',
      model: MODEL,
      duration: 2,
      targets: ['Wheel'],
      tracks: [
        {
          joint: 1,
          of: 'rotation',
          between: 'linear',
          times: Float32Array.of(0, 2),
          values: Float32Array.of(0, 0, 0, 1, 0, 0, Math.SQRT1_2, Math.SQRT1_2),
        },
      ],
    },
  ],
});
function copy({ rotation, scale }: typeof still) {
  return { rotation: [...rotation] as [number, number, number, number], scale: [...scale] as Vec3 };
}

const recorded = (movement: string, change: Partial<Extract<SiteAction, { kind: 'recorded' }>> = {}): SiteAction => ({
  kind: 'recorded',
  model: MODEL,
  movement,
  start: 0,
  speed: 1,
  repeat: 'once',
  ...change,
});
const spin = (part: string, axis: Vec3, rate: number, start = 0): SiteAction => ({
  kind: 'spin',
  model: MODEL,
  part,
  axis,
  rate,
  start,
});

/** Where a point of a part is at a time. */
function where(motion: SiteMotion, part: ScenePart, point: Vec3, time: number): Vec3 {
  const places = motion.places();
  motion.place(time, places);
  const group = motion.groupOf(part);
  const at = new Vector3(...point);
  return (group < 0 ? at : at.applyMatrix4(places[group]!)).toArray();
}
const near = (point: Vec3) => point.map((value) => expect.closeTo(value, 6));

describe('what moves', () => {
  const model = site();
  const [body, wheel, house] = model.parts as [ScenePart, ScenePart, ScenePart];

  test('without actions nothing does', () => {
    const motion = new SiteMotion(model, []);
    expect(motion.count).toBe(0);
    expect(model.parts.map((part) => motion.groupOf(part))).toEqual([-1, -1, -1]);
  });

  test('a movement carries what hangs on its joint, and nothing else', () => {
    const motion = new SiteMotion(model, [recorded('Drive')]);
    expect(motion.count).toBe(1);
    expect(where(motion, body, [0, 1, 0], 1)).toEqual(near([2, 1, 0]));
    expect(where(motion, wheel, [2, 0, 0], 1)).toEqual(near([4, 0, 0]));
    expect(where(motion, house, [0, 0, 10], 1)).toEqual([0, 0, 10]);
  });

  test('two movements play together whatever their order: the wheel turns about where it has gone', () => {
    for (const order of [
      ['Drive', 'Roll'],
      ['Roll', 'Drive'],
    ]) {
      const motion = new SiteMotion(
        model,
        order.map((name) => recorded(name)),
      );
      expect(motion.count).toBe(2);
      // Half a metre to the right of the hub: after a quarter turn about z it is above it.
      expect(where(motion, wheel, [2.5, 0, 0], 2)).toEqual(near([6, 0.5, 0]));
    }
  });

  test('a movement that the file does not have any more moves nothing', () => {
    expect(new SiteMotion(model, [recorded('Fly')]).count).toBe(0);
    expect(new SiteMotion(model, [{ ...recorded('Drive'), model: 'another' }]).count).toBe(0);
  });

  test('a part spins about its own middle, counter-clockwise seen against the axis, from its start on', () => {
    const motion = new SiteMotion(model, [spin('House', [0, 1, 0], Math.PI / 2, 3)]);
    const corner: Vec3 = [0.5, 0, 10];
    expect(where(motion, house, corner, 2)).toEqual(near(corner));
    expect(where(motion, house, corner, 4)).toEqual(near([0, 0, 9.5]));
    expect(where(motion, house, [0, 0.3, 10], 4.4)).toEqual(near([0, 0.3, 10]));
  });

  test('a spin of a group takes its parts along, and a part of it spins within', () => {
    // The group's middle: from −0.5…2.5, −0.5…1.5.
    const motion = new SiteMotion(model, [
      spin('Car', [0, 1, 0], Math.PI / 2),
      spin('Car / Wheel', [0, 0, 1], Math.PI / 2),
    ]);
    expect(motion.count).toBe(2);
    // The wheel's rim, half a metre above its hub after its own quarter turn; the hub is one metre from the middle.
    expect(where(motion, wheel, [2.5, 0, 0], 1)).toEqual(near([1, 0.5, -1]));
    expect(where(motion, body, [0, 1, 0], 1)).toEqual(near([1, 1, 1]));
  });

  test('a spinning part goes on spinning on what carries it', () => {
    const motion = new SiteMotion(model, [recorded('Drive'), spin('Car / Wheel', [0, 0, 1], Math.PI / 2)]);
    expect(where(motion, wheel, [2.5, 0, 0], 1)).toEqual(near([4, 0.5, 0]));
  });

  test('the same parts move together however fast they do, and others when other things move', () => {
    const layout = (...actions: SiteAction[]) => new SiteMotion(model, actions).layout;
    const drive = layout(recorded('Drive'), spin('House', [0, 1, 0], 1));
    expect(layout(recorded('Drive', { speed: 3, start: 1 }), spin('House', [1, 0, 0], -2))).toBe(drive);
    expect(layout(recorded('Drive'))).not.toBe(drive);
    expect(layout(recorded('Drive'), spin('Car', [0, 1, 0], 1))).not.toBe(drive);
    expect(layout(recorded('Roll'), spin('House', [0, 1, 0], 1))).not.toBe(drive);
  });

  test('a spin of what is not there is none', () => {
    expect(new SiteMotion(model, [spin('Barn', [0, 1, 0], 1)]).count).toBe(0);
    expect(new SiteMotion(model, [spin('Hou', [0, 1, 0], 1)]).count).toBe(0);
  });

  test('distances within a group never change', () => {
    const motion = new SiteMotion(model, [
      recorded('Drive', { repeat: 'to and fro' }),
      spin('Car', [2 / 3, -1 / 3, 2 / 3], 1.7),
    ]);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 500, noNaN: true }), (time) => {
        const [a, b] = [where(motion, wheel, [2, 0.5, 0], time), where(motion, wheel, [2.5, 0, -0.5], time)];
        expect(Math.hypot(...a.map((value, k) => value - b[k]!))).toBeCloseTo(Math.sqrt(0.75), 6);
      }),
    );
  });
});

describe('time within a movement', () => {
  const at = (repeat: 'once' | 'again' | 'to and fro', time: number, change = {}) =>
    timeWithin({ start: 1, speed: 2, repeat, ...change }, 4, time);

  test('begins at its start, runs at its speed, and ends as it is told to', () => {
    expect([0, 1, 2, 3, 9].map((time) => at('once', time))).toEqual([0, 0, 2, 4, 4]);
    expect([0, 2, 3, 4, 5].map((time) => at('again', time))).toEqual([0, 2, 0, 2, 0]);
    expect([0, 2, 3, 4, 5, 6].map((time) => at('to and fro', time))).toEqual([0, 2, 4, 2, 0, 2]);
  });

  test('stays within it', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('once' as const, 'again' as const, 'to and fro' as const),
        fc.double({ min: 0, max: 1e4, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (repeat, time, duration) => {
          const within = timeWithin({ start: 0, speed: 1.3, repeat }, duration, time);
          expect(within).toBeGreaterThanOrEqual(0);
          expect(within).toBeLessThanOrEqual(duration);
        },
      ),
    );
  });
});

describe('actions in their place', () => {
  const placement = { ...AS_IT_CAME, up: 'z' as const, turn: Math.PI / 2, position: [5, 0, 0] as Vec3 };
  const row = { id: MODEL, body: { placement, hidden: false } };

  test('an axis turns with its model and becomes a unit vector', () => {
    const body = actionBodySchema.parse({ kind: 'spin', model: MODEL, part: 'Wheel', axis: [0, 0, 3], rate: 1 });
    const [placed] = placeActions([body], [row]);
    // The file's z points up.
    expect(placed).toMatchObject({ axis: near([0, 1, 0]), start: 0 });
    const sideways = placeActions([{ ...body, axis: [2, 0, 0] } as typeof body], [row])[0];
    // A quarter turn counter-clockwise seen from above takes x to −z.
    expect(sideways).toMatchObject({ axis: near([0, 0, -1]) });
  });

  test('those of hidden and of deleted models rest', () => {
    const body = actionBodySchema.parse({ kind: 'recorded', model: MODEL, movement: 'Drive' });
    expect(placeActions([body], [row])).toEqual([
      { kind: 'recorded', model: MODEL, movement: 'Drive', start: 0, speed: 1, repeat: 'once' },
    ]);
    expect(placeActions([body], [{ ...row, body: { placement, hidden: true } }])).toEqual([]);
    expect(placeActions([body], [])).toEqual([]);
  });

  test('an axis without a direction and a speed of nothing are refused', () => {
    const refused = (body: object) => actionBodySchema.safeParse(body).success === false;
    expect(refused({ kind: 'spin', model: MODEL, part: 'Wheel', axis: [0, 0, 0], rate: 1 })).toBe(true);
    expect(refused({ kind: 'spin', model: MODEL, part: 'Wheel', axis: [0, 1, 0], rate: NaN })).toBe(true);
    expect(refused({ kind: 'recorded', model: MODEL, movement: 'Drive', speed: 0 })).toBe(true);
  });
});

describe('a press in the picture', () => {
  test('meets things where they are, and says where that place rests', () => {
    const model = site();
    const motion = new SiteMotion(model, [recorded('Drive')]);
    const press = (x: number, time: number) => pickSite(model.parts, motion, [x, 1, 20], [0, 0, -1], time);
    expect(press(0, 0)).toMatchObject({ part: { name: 'Car / Body' }, point: near([0, 1, 0.5]) });
    expect(press(0, 2)).toBeNull();
    expect(press(4, 2)).toMatchObject({
      part: { name: 'Car / Body' },
      point: near([4, 1, 0.5]),
      rest: near([0, 1, 0.5]),
    });
  });

  test('goes through what is cut out of a picture, and meets what is left of it', () => {
    const model = site();
    const screen = box('Screen', [0, 1, 5]);
    model.parts.push({ ...screen, uvs: Float32Array.from({ length: (screen.positions.length / 3) * 2 }, () => 0.25) });
    const motion = new SiteMotion(model, []);
    const meets = (threshold: number) =>
      pickSite(model.parts, motion, [0, 1, 20], [0, 0, -1], 0, ({ name }, s) => name !== 'Screen' || s >= threshold)!
        .part.name;
    expect(meets(0.2)).toBe('Screen');
    expect(meets(0.3)).toBe('Car / Body');
  });

  test('takes the nearer of a moving thing and one that stands', () => {
    const model = site();
    model.parts.push(box('Wall', [0, 1, 5]));
    const motion = new SiteMotion(model, [recorded('Drive')]);
    const meets = (z: number, time: number) =>
      pickSite(model.parts, motion, [0, 1, z], [0, 0, z < 0 ? 1 : -1], time)!.part.name;
    expect(meets(20, 0)).toBe('Wall');
    expect(meets(-20, 0)).toBe('Car / Body');
    expect(meets(-20, 4)).toBe('Wall');
  });
});
