import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS, type Vec3 } from '../document/index.ts';
import { orientationOf } from '../geometry/index.ts';
import { standing, type CameraSample } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import { randomFrom } from '../random.fixture.ts';
import {
  cutFlow,
  cutNotes,
  flowAtFrame,
  flowOverJoin,
  frameTime,
  HOLDS,
  imageFlow,
  matchJoin,
  NO_FLOW,
  ownSource,
  pictureFlow,
  planReel,
  type ImageFlow,
  type OwnShot,
  type RayCast,
  type ShotCamera,
} from './index.ts';
import { bentMove, moveShot, straightMove, viewShot } from './reel.fixture.ts';

const ASPECT = 16 / 9;
const rate = { num: 25, den: 1 };

/** A room of 12 × 6 × 16 m about the eye: where a ray meets its walls. */
const ROOM = { min: [-6, -1, -14], max: [6, 5, 2] } as const;
/** How far along a ray the walls across an axis are. */
const wallAcross = (k: number, from: Readonly<Vec3>, direction: Readonly<Vec3>): number => {
  const d = direction[k]!;
  const away = Math.abs(d) < 1e-12 ? Infinity : ((d > 0 ? ROOM.max : ROOM.min)[k]! - from[k]!) / d;
  return away > 0 ? away : Infinity;
};
const inRoom = (from: Vec3, direction: Vec3): number =>
  Math.min(wallAcross(0, from, direction), wallAcross(1, from, direction), wallAcross(2, from, direction));

/** One random number for each corner of a lattice. */
function hash(i: number, j: number, level: number, wall: number): number {
  let h = Math.imul(i + 7919 * wall, 374761393) ^ Math.imul(j, 668265263) ^ Math.imul(level + 1, 2147483629);
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}
const smooth = (t: number) => t * t * (3 - 2 * t);
const mix = (p: number, q: number, t: number) => p + (q - p) * t;

/** Grain of a wall at a place: smooth noise of several sizes, from a lattice of random numbers. */
function grain(x: number, y: number, wall: number): number {
  let value = 0;
  for (let level = 0; level < 3; level += 1) {
    const size = 0.6 / 2 ** level;
    const u = x / size;
    const v = y / size;
    const i = Math.floor(u);
    const j = Math.floor(v);
    const a = smooth(u - i);
    const near = mix(hash(i, j, level, wall), hash(i + 1, j, level, wall), a);
    const far = mix(hash(i, j + 1, level, wall), hash(i + 1, j + 1, level, wall), a);
    value += mix(near, far, smooth(v - j));
  }
  return value / 3;
}

const [WIDTH, HEIGHT] = [480, 270];
/** A picture of the room, rendered ray by ray. */
function rendered({ view, position, orientation }: CameraSample): Float64Array {
  const projection = new Projection(view, ASPECT, position, orientation);
  const out = new Float64Array(WIDTH * HEIGHT);
  for (let row = 0; row < HEIGHT; row += 1)
    for (let column = 0; column < WIDTH; column += 1) {
      const { from, direction } = projection.ray((2 * (column + 0.5)) / WIDTH - 1, 1 - (2 * (row + 0.5)) / HEIGHT);
      const away = inRoom(from, direction);
      const across = [0, 1, 2].find((k) => wallAcross(k, from, direction) === away)!;
      const wall = 2 * across + (direction[across]! > 0 ? 1 : 0);
      const at = (k: number) => from[k]! + direction[k]! * away;
      const [u, v] = across === 0 ? [at(2), at(1)] : across === 1 ? [at(0), at(2)] : [at(0), at(1)];
      out[row * WIDTH + column] = grain(u, v, wall);
    }
  return out;
}

const pixel = (image: Float64Array, x: number, y: number): number =>
  image[Math.min(HEIGHT - 1, Math.max(0, y)) * WIDTH + Math.min(WIDTH - 1, Math.max(0, x))]!;

/** Between pixels, by the four about it. */
function between(image: Float64Array, x: number, y: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [a, b] = [x - i, y - j];
  const across = (row: number) => pixel(image, i, row) * (1 - a) + pixel(image, i + 1, row) * a;
  return across(j) * (1 - b) + across(j + 1) * b;
}

/** How far a block about a pixel has gone from one picture to the next: the best of all shifts, then finer about it. */
function blockShift(a: Float64Array, b: Float64Array, x: number, y: number, reach: number): [number, number] {
  const HALF = 7;
  /** How unlike the block is to what lies where it might have gone; no farther than it must be told. */
  const off = (dx: number, dy: number, least: number) => {
    const whole = Number.isInteger(dx) && Number.isInteger(dy);
    let sum = 0;
    for (let j = -HALF; j <= HALF && sum < least; j += 1)
      for (let i = -HALF; i <= HALF; i += 1) {
        const there = whole ? pixel(b, x + i + dx, y + j + dy) : between(b, x + i + dx, y + j + dy);
        sum += (there - pixel(a, x + i, y + j)) ** 2;
      }
    return sum;
  };
  let best: [number, number] = [0, 0];
  let least = Infinity;
  for (let dy = -reach; dy <= reach; dy += 1)
    for (let dx = -reach; dx <= reach; dx += 1) {
      const value = off(dx, dy, least);
      if (value < least) [least, best] = [value, [dx, dy]];
    }
  for (let step = 0.5; step > 0.01; step /= 2)
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
      [1, 1],
      [1, -1],
      [-1, 1],
      [-1, -1],
    ] as const) {
      const next: [number, number] = [best[0] + dx * step, best[1] + dy * step];
      const value = off(...next, least);
      if (value < least) [least, best] = [value, next];
    }
  return best;
}

/** A camera that goes and turns steadily. */
const going =
  (velocity: Vec3, [pan, tilt]: readonly [number, number], zoom = 0) =>
  (time: number): CameraSample =>
    standing(
      {
        position: [velocity[0] * time, 1.6 + velocity[1] * time, velocity[2] * time],
        orientation: orientationOf({ pan: pan * time, tilt: tilt * time, roll: 0 }),
      },
      { ...DEFAULT_LENS, focalLengthMm: 24 * (1 + zoom * time) },
      time,
    );

/** Mean velocity of a picture: where it goes as a whole, frame widths a second. */
function meanVelocity({ velocities }: ImageFlow): [right: number, up: number] {
  let [u, v] = [0, 0];
  for (let i = 0; i < velocities.length; i += 2) {
    u += velocities[i]!;
    v += velocities[i + 1]!;
  }
  const count = velocities.length / 2;
  return [u / count, v / count];
}

describe('how a picture moves', () => {
  // Ten cuts: what comes before and what comes after, each between two rendered pictures.
  const random = randomFrom(11);
  const either = (size: number) => (random() - 0.5) * 2 * size;
  const motions = Array.from({ length: 10 }, (_, i) =>
    [0, 1].map(() =>
      going([either(2), either(0.6), either(3)], [either(0.35), either(0.2)], i % 3 === 0 ? either(0.3) : 0),
    ),
  );

  const first = motions.map((cut) => cut.map((sampleAt) => rendered(sampleAt(0))));

  test('is within 5 % of what block matching finds between two rendered frames, on both sides of ten cuts', () => {
    motions.forEach((cut, n) =>
      cut.forEach((sampleAt, side) => {
        // So far apart in time that pictures of this size show it.
        const step = 0.1;
        const flow = imageFlow(sampleAt, 0, step, ASPECT, (from, direction) => inRoom(from, direction));
        const [a, b] = [first[n]![side]!, rendered(sampleAt(step))];
        let [theirs, ours] = [0, 0];
        // Every other place is enough of a sample, and half of the time.
        for (let i = 0; i < flow.places.length; i += 4) {
          const [x, y] = [((flow.places[i]! + 1) / 2) * WIDTH - 0.5, ((1 - flow.places[i + 1]!) / 2) * HEIGHT - 0.5];
          const [u, v] = [flow.velocities[i]!, flow.velocities[i + 1]!];
          const reach = Math.ceil(Math.hypot(u, v) * step * WIDTH) + 3;
          const [dx, dy] = blockShift(a, b, Math.round(x), Math.round(y), Math.min(24, reach));
          theirs += Math.hypot(dx, dy) / WIDTH / step;
          ours += Math.hypot(u, v);
        }
        expect(Math.abs(theirs / ours - 1)).toBeLessThan(0.05);
      }),
    );
  });

  test('is found in pictures alone within a twentieth, on either side of ten cuts', () => {
    const grey = (pixels: Float64Array) => ({ width: WIDTH, height: HEIGHT, pixels: Float32Array.from(pixels) });
    const step = frameTime(1, rate);
    motions.flat().forEach((sampleAt, i) => {
      const flow = imageFlow(sampleAt, 0, step, ASPECT, inRoom);
      const found = pictureFlow(grey(first.flat()[i]!), grey(rendered(sampleAt(step))), step);
      expect(Math.abs(found.speed / flow.speed - 1)).toBeLessThan(0.05);
      expect(cutFlow(flow, found).agreement).toBeGreaterThan(0.97);
    });
    // What only gets lighter stands still, to a tenth of what counts as still, and so does what is plain.
    const still = grey(first[0]![0]!);
    const lighter = { ...still, pixels: still.pixels.map((value) => value + 0.1) };
    expect(pictureFlow(still, lighter, 0.1).speed).toBeLessThan(0.002);
    const plain = { ...still, pixels: new Float32Array(WIDTH * HEIGHT).fill(0.5) };
    expect(pictureFlow(plain, plain, 0.1).speed).toBe(0);
  });

  test('of a clip is its own, at the pace and the way it is shown, and only where it is seen', () => {
    const fields = [Float32Array.from({ length: 80 }, (_, i) => (i % 2 ? 0 : 0.2)), new Float32Array(80)];
    const motion = { aspect: ASPECT, every: 1, fields };
    const file = { file: { sha256: 'a'.repeat(64), size: 9, mediaType: 'video/mp4' }, fileName: 'a.mp4' };
    const shown = (change: object, seconds?: number): OwnShot => {
      const use = { kind: 'clip' as const, ...file, duration: 2, from: 0, ...change };
      const body = { reel: 'r', use, ...(seconds !== undefined && { seconds }) };
      const planned = planReel([{ id: 'a', body }], rate, ({ body: { use: of } }) => ownSource(of)).shots[0]!;
      return { body, planned, camera: null, motion };
    };
    const at = (shot: OwnShot, frame: number, aspect = ASPECT) =>
      meanVelocity(flowAtFrame(shot, frame, { rate, aspect, cast: inRoom }))[0];
    expect([0, 5, 20].map((frame) => at(shown({}), frame))).toEqual([0.2, 0.2, 0].map((v) => expect.closeTo(v, 6)));
    expect(at(shown({}, 4), 5)).toBeCloseTo(0.1, 6);
    expect(at(shown({ backwards: true }), 45)).toBeCloseTo(-0.2, 6);
    // In an upright picture it is a third as wide, and most of what is seen is black.
    expect(at(shown({}), 0, 9 / 16)).toBeLessThan(0.2);
    expect(at({ ...shown({}), motion: null }, 0)).toBe(0);
  });

  test('a pan and a truck past a wall are as fast as the optics say', () => {
    const wall = () => 10;
    // 36 mm wide at 24 mm: 1.5 × the distance is a frame width.
    const truck = imageFlow(going([1, 0, 0], [0, 0]), 0, 0.04, ASPECT, (_, direction) => 10 / -direction[2]);
    expect(truck.speed).toBeCloseTo(1 / 15, 6);
    expect(meanVelocity(truck)[0]).toBeCloseTo(-1 / 15, 6);
    const pan = imageFlow(going([0, 0, 0], [0.01, 0]), 0, 0.04, ASPECT, wall);
    expect(meanVelocity(pan)[0]).toBeGreaterThan(0.01 / 1.5);
    expect(imageFlow(going([0, 0, 0], [0, 0]), 0, 0.04, ASPECT, wall).speed).toBeLessThan(1e-12);
  });
});

describe('how a cut-out moves', () => {
  test('is told in its own widths, as the optics say', () => {
    const body = viewShot({ seconds: 2 }, { drift: { way: 'right', distance: 2 } });
    const planned = planReel([{ id: 'a', body }], { num: 25, den: 1 }, () => HOLDS).shots[0]!;
    const camera: ShotCamera = {
      kind: 'view',
      view: { pose: { position: [0, 1.6, 0], orientation: [0, 0, 0, 1] }, lens: DEFAULT_LENS },
    };
    const wall: RayCast = (_, direction) => 10 / -direction[2];
    const measure = { rate: { num: 25, den: 1 }, whole: 16 / 9, cast: wall };
    const shot = { body, planned, camera };
    // A metre a second, 10 m away, by a lens that sees 15 m there.
    expect(flowAtFrame(shot, 5, { ...measure, aspect: 16 / 9 }).speed).toBeCloseTo(1 / 15, 6);
    const width = 9 / 16 / (16 / 9);
    expect(flowAtFrame(shot, 5, { ...measure, aspect: 9 / 16 }).speed).toBeCloseTo(1 / (15 * width), 6);
    const aside = { ...shot, body: { ...body, aside: 0.7 } };
    expect(flowAtFrame(aside, 5, { ...measure, aspect: 9 / 16 }).speed).toBeCloseTo(1 / (15 * width), 6);
  });
});

describe('a cut', () => {
  const flow = (velocity: Vec3) =>
    imageFlow(going(velocity, [0, 0]), 0, 0.04, ASPECT, (_, direction) => 10 / Math.max(0.1, -direction[2]));
  test.each([
    ['carries', [1, 0, 0], [1.1, 0, 0]],
    ['carries', [0, 0, 0], [0, 0, 0]],
    ['stops', [2, 0, 0], [0, 0, 0]],
    ['races', [0.2, 0, 0], [3, 0, 0]],
    ['turns back', [1.5, 0, 0], [-1.5, 0, 0]],
    ['turns back', [0, 0, -3], [0, 0, 3]],
  ] as const)('%s: %p to %p', (word, a, b) => {
    const cut = cutFlow(flow([...a]), flow([...b]));
    expect(cut.word).toBe(word);
    if (word === 'carries') expect(cut.score).toBeGreaterThan(0.6);
  });

  test('a score is between nothing and all, the same both ways, and 1 for what goes on as it was', () => {
    const random = randomFrom(5);
    for (let i = 0; i < 300; i += 1) {
      const [a, b] = [0, 1].map(() => flow([random() * 4 - 2, random() - 0.5, random() * 6 - 3])) as [
        ReturnType<typeof flow>,
        ReturnType<typeof flow>,
      ];
      const { score } = cutFlow(a, b);
      expect(score >= 0 && score <= 1).toBe(true);
      expect(cutFlow(b, a).score).toBeCloseTo(score, 12);
      expect(cutFlow(a, a)).toMatchObject({ score: 1, word: 'carries' });
    }
    expect(cutFlow(NO_FLOW, flow([3, 0, 0])).word).toBe('races');
  });
});

const measure = { rate, aspect: ASPECT, cast: inRoom };
const source = { duration: 8, loops: false };
function own(id: string, change: Parameters<typeof moveShot>, camera: OwnShot['camera']): OwnShot {
  const body = moveShot(...change);
  return { body, camera, planned: planReel([{ id, body }], rate, () => source).shots[0]! };
}

describe('match', () => {
  test('never lowers the score, does what it says, and keeps the length when asked to', () => {
    const random = randomFrom(17);
    let proposals = 0;
    for (let i = 0; i < 40; i += 1) {
      const camera = () => (random() < 0.5 ? straightMove((random() - 0.3) * 3) : bentMove());
      const use = () => ({
        from: random() * 2,
        to: 3 + random() * 3,
        ...(random() < 0.3 && { backwards: true as const }),
      });
      const [before, after] = [own('a', [{}, use()], camera()), own('b', [{}, use()], camera())];
      const outer = random() < 0.5 ? own('c', [{}, use()], camera()) : null;
      const keepLength = random() < 0.5;
      const now = flowOverJoin(before, after, measure);
      const found = matchJoin({
        before,
        after,
        outer: { before: outer, after: null },
        sourceOf: () => source,
        measure,
        keepLength,
      });
      proposals += found.length;
      found.forEach((match, k) => {
        expect(match.flow.score).toBeGreaterThan(now.score);
        if (k > 0)
          expect(match.flow.score + match.beside).toBeLessThanOrEqual(found[k - 1]!.flow.score + found[k - 1]!.beside);
        if (keepLength) expect(match.longer).toBe(0);
        if (match.kind === 'swap') return;
        // What is saved of it carries as it was promised.
        const made = [before, after].map((shot) => {
          const body = match.changes.find(({ id }) => id === shot.planned.id)?.body ?? shot.body;
          return { ...shot, body, planned: planReel([{ id: shot.planned.id, body }], rate, () => source).shots[0]! };
        });
        expect(flowOverJoin(made[0]!, made[1]!, measure).score).toBeCloseTo(match.flow.score, 6);
        const length = made.reduce((sum, { planned }) => sum + planned.frames, 0);
        expect(length - before.planned.frames - after.planned.frames).toBe(match.longer);
      });
    }
    expect(proposals).toBeGreaterThan(60);
  });

  test('what carries already needs nothing', () => {
    const shots = [
      own('a', [{}, { to: 3 }], straightMove()),
      own('b', [{}, { from: 3, to: 6 }], straightMove()),
    ] as const;
    expect(flowOverJoin(shots[0], shots[1], measure).word).toBe('carries');
  });
});

describe('notes of a cut', () => {
  const looking = (position: Vec3, at: Vec3, moves?: (time: number) => Vec3): OwnShot => {
    const pan = Math.atan2(-(at[0] - position[0]), -(at[2] - position[2]));
    const sample = standing({ position, orientation: orientationOf({ pan, tilt: 0, roll: 0 }) }, DEFAULT_LENS);
    const look = { from: 0, to: 8, reach: 0.5, at: moves ?? (() => at), ...(moves && { moves: true }) };
    const camera = {
      kind: 'move' as const,
      move: { duration: 8, loops: false, looks: [look], sampleAt: (time: number) => ({ ...sample, moveTime: time }) },
    };
    return own(String(position), [{}, { to: 4 }], camera);
  };
  const kinds = (a: OwnShot, b: OwnShot) => cutNotes(a, b, measure).map(({ kind }) => kind);

  test('the same thing from nearly the same side jumps; from another side, or much nearer, it does not', () => {
    const at: Vec3 = [0, 1.6, -8];
    expect(kinds(looking([0, 1.6, 0], at), looking([1.5, 1.6, 0], at))).toEqual(['thirty degrees']);
    expect(kinds(looking([0, 1.6, 0], at), looking([6, 1.6, -2], at))).toEqual([]);
    expect(kinds(looking([0, 1.6, 0], at), looking([0.2, 1.6, -5], at))).toEqual(['size']);
    expect(kinds(looking([0, 1.6, 0], at), looking([1.5, 1.6, 0], [5, 1.6, -2]))).toEqual([]);
  });

  test('what goes to the right goes to the left when it is seen from its other side', () => {
    const shuttle = (time: number): Vec3 => [-2 + time, 1.6, -8];
    const from = (z: number) => looking([0, 1.6, z], [0, 1.6, -8], shuttle);
    expect(kinds(from(0), from(-16))).toContain('crosses the line');
    expect(kinds(from(0), from(-1))).not.toContain('crosses the line');
  });
});
