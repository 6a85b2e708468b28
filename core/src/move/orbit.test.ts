import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PerspectiveCamera, Vector3 } from 'three';
import { checkMove } from '../check/index.ts';
import { DEFAULT_LENS, FIRST_LIMITS, type Bounds, type Orbit, type Pivot, type Vec3 } from '../document/index.ts';
import { outlineOf } from '../geometry/index.ts';
import { Projection } from '../optics/index.ts';
import { frameCount, frameTime } from '../reel/index.ts';
import { Footing } from '../survey/index.ts';
import { MODEL, nowhere, orbitOf as orbit, siteOf } from './kinds.fixture.ts';
import { atTempo, compileMove, SAMPLE_STRIDE, type MoveSite } from './index.ts';

const part = (name: string, min: Vec3, max: Vec3) => ({ model: MODEL, name, bounds: { min, max } });
const site = (parts: MoveSite['parts'] = []): MoveSite => siteOf({ parts });
const key = (time: number, value: number, n: number) => ({
  id: `00000000-0000-4000-8000-00000000020${n}`,
  anchor: { by: 'time' as const, time },
  value,
  ease: 'smooth' as const,
});
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('going round', () => {
  test('keeps its distance and its height, and the pivot in the middle (camera of three.js)', () => {
    fc.assert(
      fc.property(
        number(-6, 6),
        number(-13, 13),
        number(-1.4, 1.4),
        number(0.02, 90),
        number(0, 5),
        (start, sweep, inclination, radius, time) => {
          const move = compileMove(orbit({ start, sweep, inclination, distance: { by: 'radius', radius } }), site())!;
          const { position, orientation } = move.sampleAt(time);
          expect(Math.hypot(position[0] - 3, position[1] - 1, position[2] + 2)).toBeCloseTo(radius, 6);
          expect(position[1] - 1).toBeCloseTo(radius * Math.sin(inclination), 6);
          const camera = new PerspectiveCamera(40, 1, radius / 10, 10 * radius);
          camera.position.fromArray(position);
          camera.quaternion.fromArray(orientation);
          camera.updateMatrixWorld();
          const seen = new Vector3(3, 1, -2).project(camera);
          expect(Math.hypot(seen.x, seen.y)).toBeLessThan(1e-6);
          expect(seen.z).toBeLessThan(1);
        },
      ),
    );
  });

  test('a quarter of a turn, positive, goes counter-clockwise in the plan', () => {
    const move = compileMove(orbit({ start: 0, sweep: Math.PI / 2, inclination: 0 }), site())!;
    const [from, to] = [move.sampleAt(0).position, move.sampleAt(5).position];
    // South of the pivot (z is down in a plan), then east of it.
    [3, 1, 2].forEach((value, k) => expect(from[k]).toBeCloseTo(value, 9));
    [7, 1, -2].forEach((value, k) => expect(to[k]).toBeCloseTo(value, 9));
    expect(move.loops).toBe(false);
  });

  test('eased it begins and ends at rest, and is at its middle half-way', () => {
    const move = compileMove(orbit({ shape: 'ease both', sweep: Math.PI }), site())!;
    const turn = move.channels.find(({ id }) => id === 'turn')!;
    expect(turn.at(0)).toBeCloseTo(0, 9);
    expect(turn.at(5)).toBeCloseTo(0, 9);
    // Flash & Hogan 1985: the peak is 1.875 × the mean.
    expect(turn.at(2.5)).toBeCloseTo((1.875 * 180) / 5, 6);
  });
});

describe('a turntable', () => {
  const zoom = orbit({ tracks: { focalLength: [key(0, 50, 1), key(2.5, 100, 2)] } });

  test('of five seconds has 125 frames; frame 125 is frame 0 and is none of them', () => {
    const move = compileMove(zoom, site())!;
    const rate = { num: 25, den: 1 };
    expect(move.loops).toBe(true);
    const frames = frameCount(move.duration, rate);
    expect(frames).toBe(125);
    const [first, last, next] = [0, frames - 1, frames].map((i) => move.sampleAt(frameTime(i, rate)));
    expect(next!.position).toEqual(first!.position);
    expect(next!.view).toEqual(first!.view);
    // The same orientation, whichever sign.
    expect(Math.abs(next!.orientation.reduce((sum, q, k) => sum + q * first!.orientation[k]!, 0))).toBeCloseTo(1, 12);
    const step = (a: Vec3, b: Vec3) => Math.hypot(...a.map((value, k) => value - b[k]!));
    const stride = step(move.sampleAt(0.04).position, first!.position);
    expect(step(last!.position, first!.position)).toBeCloseTo(stride, 9);
  });

  test('its lens goes from 50 to 100 mm and, as it loops, back', () => {
    const move = compileMove(zoom, site())!;
    const focal = (time: number) => {
      const { view } = move.sampleAt(time);
      return view.kind === 'lens' ? view.focalLengthMm : Number.NaN;
    };
    expect(focal(0)).toBeCloseTo(50, 9);
    expect(focal(1.25)).toBeCloseTo(75, 9);
    expect(focal(2.5)).toBeCloseTo(100, 9);
    expect(focal(5)).toBeCloseTo(50, 9);
  });

  test('the batch form says the same', () => {
    const move = compileMove(zoom, site())!;
    const times = [0, 0.3, 2.5, 4.99];
    const out = new Float64Array(times.length * SAMPLE_STRIDE);
    move.fill(times, out);
    times.forEach((time, i) => {
      const { position, orientation, view } = move.sampleAt(time);
      const focal = view.kind === 'lens' ? view.focalLengthMm : Number.NaN;
      const wanted = [...position, ...orientation, focal, Infinity, Infinity, 0];
      expect([...out.subarray(i * SAMPLE_STRIDE, (i + 1) * SAMPLE_STRIDE)]).toEqual(wanted);
    });
  });
});

describe('round an object', () => {
  const body: Bounds = { min: [10, 0, -4], max: [12, 1.5, -3] };
  const pivot: Extract<Pivot, { kind: 'object' }> = {
    kind: 'object',
    model: MODEL,
    name: 'Body',
    whole: false,
    point: [0, 0, 0],
  };
  const parts = [part('Body', body.min, body.max), part('Foot', [10, -1, -4], [12, 0, -3])];

  test('fit: a ball fills the wanted part of the frame to 1 % from every side, and so does a lens of it', () => {
    const centre: Vec3 = [3, 1, -2];
    // Many more places of the ball than its outline keeps, and other ones.
    const ball = (squash: number) =>
      Array.from({ length: 40_000 }, (_, i) => {
        const y = 1 - (2 * (i + 0.5)) / 40_000;
        const [flat, angle] = [Math.sqrt(1 - y * y), i * 2.4];
        return [centre[0] + flat * Math.cos(angle), centre[1] + squash * y, centre[2] + flat * Math.sin(angle)] as Vec3;
      });
    for (const squash of [1, 0.4])
      for (const [fill, inclination] of [
        [0.7, 0.3],
        [0.4, -0.6],
        [0.9, 1.1],
      ] as const) {
        const places = ball(squash);
        const round = part('Body', [2, 1 - squash, -3], [4, 1 + squash, -1]);
        const outline = outlineOf([Float32Array.from(places.flat())]);
        expect(outline.length / 3).toBeLessThanOrEqual(400);
        const move = compileMove(orbit({ pivot, inclination, distance: { by: 'fit', fill } }), {
          ...site([{ ...round, outline }]),
          aspect: 16 / 9,
        })!;
        for (let i = 0; i < 24; i += 1) {
          const { view, position, orientation } = move.sampleAt((i * move.duration) / 24);
          const projection = new Projection(view, 16 / 9, position, orientation);
          const most = places.reduce((so, place) => {
            const seen = projection.project(place);
            return Math.max(so, Math.abs(seen.x), Math.abs(seen.y));
          }, 0);
          expect(Math.abs(most / fill - 1)).toBeLessThan(0.01);
        }
      }
  });

  test('fit: all the way round the box touches the wanted part of the frame and never leaves it', () => {
    fc.assert(
      fc.property(
        number(0.2, 1),
        number(-1.2, 1.2),
        number(20, 200),
        number(0.6, 2.4),
        (fill, inclination, focalLengthMm, aspect) => {
          const move = compileMove(
            orbit({ pivot, inclination, distance: { by: 'fit', fill }, lens: { ...DEFAULT_LENS, focalLengthMm } }),
            { ...site(parts), aspect },
          )!;
          let most = 0;
          for (let i = 0; i <= 360; i += 1) {
            const { position, orientation } = move.sampleAt((i * 5) / 360);
            // 36 × 24: the picture uses all of its width, or all of its height.
            const height = aspect >= 1.5 ? 36 / aspect : 24;
            const camera = new PerspectiveCamera(
              (360 / Math.PI) * Math.atan(height / (2 * focalLengthMm)),
              aspect,
              0.01,
              1e4,
            );
            camera.position.fromArray(position);
            camera.quaternion.fromArray(orientation);
            camera.updateMatrixWorld();
            for (let c = 0; c < 8; c += 1) {
              const at = [0, 1, 2].map((k) => ((c >> k) & 1 ? body.max[k]! : body.min[k]!));
              const seen = new Vector3(...(at as Vec3)).project(camera);
              most = Math.max(most, Math.abs(seen.x), Math.abs(seen.y));
            }
          }
          expect(most).toBeLessThan(fill * 1.001);
          expect(most).toBeGreaterThan(fill * 0.97);
        },
      ),
      { numRuns: 30 },
    );
  });

  test('the part, the whole model, and what is gone', () => {
    const middleOf = (whole: boolean, among: MoveSite['parts']) => {
      const { position } = compileMove(
        orbit({ pivot: { ...pivot, whole }, start: 0, inclination: 0 }),
        site(among),
      )!.sampleAt(0);
      return [position[0], position[1], position[2] - 4];
    };
    expect(middleOf(false, parts)).toEqual([11, 0.75, -3.5]);
    expect(middleOf(true, parts)).toEqual([11, 0.25, -3.5]);
    expect(middleOf(false, [])).toEqual([0, 0, 0]);
  });
});

describe('checks read no kind', () => {
  const wall = new Footing(new Float32Array(0), Float32Array.of(6, -5, -9, 6, -5, 9, 6, 9, 0));

  test('a camera that passes through something, twice, and none where the ring is smaller', () => {
    const found = (radius: number) =>
      checkMove(
        compileMove(orbit({ inclination: 0, duration: 30, distance: { by: 'radius', radius } }), site())!,
        wall,
        FIRST_LIMITS,
      ).filter(({ rule }) => rule === 'through');
    expect(found(2.9)).toEqual([]);
    const both = found(4);
    expect(both).toHaveLength(2);
    for (const { point } of both) expect(point![0]).toBeCloseTo(6, 2);
  });

  test('a turn that is too fast is said with how fast, and slower at the offered tempo', () => {
    const fast = orbit({ duration: 5 });
    const [turn] = checkMove(compileMove(fast, site())!, nowhere, FIRST_LIMITS);
    expect(turn).toMatchObject({ rule: 'turn', severity: 'problem', limit: 60, worst: expect.closeTo(72, 3) });
    const slower = atTempo(fast, (turn!.fix as { factor: number }).factor);
    expect(slower.duration).toBeCloseTo(12, 3);
    expect(checkMove(compileMove(slower, site())!, nowhere, FIRST_LIMITS)).toEqual([]);
  });

  test('where nothing is known to be in the way, it is said that nobody looked', () => {
    const unknown = new Footing(new Float32Array(0));
    const rules = checkMove(compileMove(orbit({ duration: 30 }), site())!, unknown, FIRST_LIMITS).map(
      ({ rule }) => rule,
    );
    expect(rules).toEqual(['not looked at']);
  });
});

describe('an orbit in full', () => {
  const turn = (move: NonNullable<ReturnType<typeof compileMove>>, time: number) => {
    const [x, , z] = move.sampleAt(time).position;
    return Math.atan2(x - 3, z + 2);
  };

  test('rises and widens over its sweep, and looks at its subject all the while', () => {
    const move = compileMove(orbit({ rise: 2, widens: 0.5, sweep: 2, start: 0 }), site())!;
    for (const [time, part] of [
      [0, 0],
      [2.5, 0.5],
      [5, 1],
    ] as const) {
      const { position } = move.sampleAt(time);
      const radius = 4 * (1 - 0.5 * part);
      expect(position[1] - 1).toBeCloseTo(radius * Math.sin(0.3) + 2 * part, 9);
      expect(Math.hypot(position[0] - 3, position[2] + 2)).toBeCloseTo(radius * Math.cos(0.3), 9);
      const camera = new PerspectiveCamera(40, 1, 0.1, 100);
      camera.position.fromArray(position);
      camera.quaternion.fromArray(move.sampleAt(time).orientation);
      camera.updateMatrixWorld();
      const seen = new Vector3(3, 1, -2).project(camera);
      expect(Math.hypot(seen.x, seen.y)).toBeLessThan(1e-9);
    }
    expect(compileMove(orbit({ rise: 2 }), site())!.loops).toBe(false);
  });

  test('stops at its angles for as long as it is told to', () => {
    const stops = [{ id: '00000000-0000-4000-8000-0000000000b1', angle: 1, seconds: 1.5 }];
    const move = compileMove(orbit({ stops, start: 0, sweep: 3, duration: 9, shape: 'ease both' }), site())!;
    expect(move.duration).toBe(9);
    const [stop] = move.channels.find(({ id }) => id === 'turn')!.items!;
    expect(stop!.to - stop!.from).toBeCloseTo(1.5, 6);
    for (const part of [0.01, 0.5, 0.99]) expect(turn(move, stop!.from + 1.5 * part)).toBeCloseTo(1, 6);
    expect(turn(move, 9)).toBeCloseTo(3, 6);
  });

  test('swings there and back in its time, and closes', () => {
    const move = compileMove(orbit({ swings: true, start: 0, sweep: 1.2, shape: 'ease both' }), site())!;
    expect(move.loops).toBe(true);
    expect(turn(move, 2.5)).toBeCloseTo(1.2, 9);
    for (const time of [0.4, 1.1, 2]) expect(turn(move, 5 - time)).toBeCloseTo(turn(move, time), 9);
  });

  test('has every shape of a pace: cut-ready ends move, those at rest do not', () => {
    const speed = (shape: Orbit['shape'], time: number) =>
      compileMove(orbit({ shape }), site())!
        .channels.find(({ id }) => id === 'turn')!
        .at(time);
    expect(speed('ease out of rest', 0)).toBeCloseTo(0, 9);
    expect(speed('ease out of rest', 5)).toBeGreaterThan(70);
    expect(speed('ease to rest', 5)).toBeCloseTo(0, 9);
    expect(speed('carry', 0)).toBeGreaterThan(1.5 * speed('carry', 2.5));
  });

  test('with a rise fits its subject at every angle, and no more than it has to', () => {
    fc.assert(
      fc.property(
        number(-3, 6),
        number(0.4, 2.5),
        number(0.2, 0.9),
        number(-1, 1),
        (rise, widens, fill, inclination) => {
          const box = part('Box', [2, 0, -3], [4, 2, -1]);
          const body = orbit({
            ...{ rise, widens, inclination, sweep: 2.4 },
            pivot: { kind: 'object', model: MODEL, name: 'Box', whole: false, point: [3, 1, -2] },
            distance: { by: 'fit', fill },
          });
          const move = compileMove(body, site([box]))!;
          let most = 0;
          for (let time = 0; time <= 5; time += 0.025) {
            const { position, orientation } = move.sampleAt(time);
            const camera = new PerspectiveCamera((2 * Math.atan(10.125 / 50) * 180) / Math.PI, 16 / 9, 0.001, 1000);
            camera.position.fromArray(position);
            camera.quaternion.fromArray(orientation);
            camera.updateMatrixWorld();
            for (let corner = 0; corner < 8; corner += 1) {
              const seen = new Vector3(corner & 1 ? 4 : 2, corner & 2 ? 2 : 0, corner & 4 ? -1 : -3).project(camera);
              most = Math.max(most, Math.abs(seen.x), Math.abs(seen.y));
            }
          }
          expect(Math.abs(most / fill - 1)).toBeLessThan(0.01);
          // What fits is not said to be cut; a little nearer than the frame is wide it is.
          const rules = (b: Orbit) =>
            checkMove(compileMove(b, site([box]))!, nowhere, FIRST_LIMITS).map(({ rule }) => rule);
          expect(rules(body)).not.toContain('out of frame');
          const whole = { ...body, distance: { by: 'fit' as const, fill: 1 } };
          const { radius } = compileMove(whole, site([box])) as unknown as { radius: number };
          const near = { ...body, distance: { by: 'radius' as const, radius: 0.985 * radius } };
          expect(rules(near)).toContain('out of frame');
        },
      ),
      { numRuns: 25 },
    );
  });
});
