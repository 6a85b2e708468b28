import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEFAULT_LENS, FIRST_LIMITS, FIRST_WALKER, type Gaze, type Vec3, type Walk } from '../document/index.ts';
import { box, footingFrom, slab, walkThrough } from '../move/floor-scenes.fixture.ts';
import { orientationOf } from '../geometry/index.ts';
import { compileMove, standing, type CompiledMove } from '../move/index.ts';
import { randomFrom } from '../random.fixture.ts';
import type { Footing } from '../survey/index.ts';
import { crossingFindings } from './crossing.ts';
import { checkMove, mended, type Finding } from './index.ts';

const open = footingFrom(slab(-30, 30, -30, 30, 0));
const straight = walkThrough([
  [-6, 0, 0],
  [6, 0, 0],
]);
let serial = 0;
const newId = () => `00000000-0000-4000-8000-${String((serial += 1) + 900).padStart(12, '0')}`;

const compiled = (walk: Walk, footing: Footing): CompiledMove =>
  compileMove(walk, {
    footing,
    walker: FIRST_WALKER,
    parts: [],
    motion: null,
    aspect: 16 / 9,
    limits: FIRST_LIMITS,
  })!;
const check = (walk: Walk, footing = open) => checkMove(compiled(walk, footing), footing, FIRST_LIMITS, FIRST_WALKER);
const rules = (found: readonly Finding[]) => found.map(({ rule }) => rule);
const mend = (walk: Walk, one: Finding, footing = open) =>
  mended(walk, one.fix!, {
    move: compiled(walk, footing),
    footing,
    walker: FIRST_WALKER,
    limits: FIRST_LIMITS,
    newId,
  }) as Walk;
const point = (at: Vec3): Gaze => ({ kind: 'point', point: at });

describe('what is looked at and hidden', () => {
  // 9 m to the left of the way; a wall between, from x = −2 to 2.
  const screened = footingFrom([...slab(-30, 30, -30, 30, 0), ...box(-2, 2, 0, 4, -5.1, -5)]);
  const looking = { ...straight, gaze: point([0, 1.6, -9]) };

  test('says from when to when, as the sight lines do', () => {
    const [hidden] = check(looking, screened).filter(({ rule }) => rule === 'hidden');
    // The wall's ends, ±2 at z = −5, seen from z = 0 in line with (0, −9): x = ±2 · 9 / 4 = ±4.5, at 1 m/s from −6.
    expect(hidden!.from).toBeCloseTo(1.5, 0);
    expect(hidden!.to).toBeCloseTo(10.5, 0);
    expect(rules(check(looking))).not.toContain('hidden');
  });

  test('against sight lines told one by one: any wall, any way', () => {
    const random = randomFrom(5);
    for (let n = 0; n < 40; n += 1) {
      const [left, wide, z] = [-6 + random() * 8, 0.3 + random() * 4, -1.5 - random() * 5];
      const footing = footingFrom([...slab(-30, 30, -30, 30, 0), ...box(left, left + wide, 0, 4, z - 0.1, z)]);
      const move = compiled(looking, footing);
      const found = check(looking, footing).filter(({ rule }) => rule === 'hidden');
      for (let time = 0.4; time < move.duration - 0.4; time += 0.1) {
        const [x] = move.sampleAt(time).position;
        // Where the line from (x, 0) to (0, −9) crosses the wall's plane.
        const at = x * (1 - z / -9);
        const clear = at < left - 0.15 || at > left + wide + 0.15;
        const within = at > left + 0.15 && at < left + wide - 0.15 && wide > 1;
        const said = found.some(({ from, to }) => time >= from - 0.01 && time <= to + 0.01);
        if (clear) expect(said).toBe(false);
        if (within) expect(said).toBe(true);
      }
    }
  });

  test('glass hides nothing, and the thing itself does not hide itself', () => {
    const thing = footingFrom([...slab(-30, 30, -30, 30, 0), ...box(-0.1, 0.1, 0, 3, -9.1, -8.95)]);
    expect(rules(check(looking, thing))).not.toContain('hidden');
  });
});

describe('what is right before the lens', () => {
  test('a screen that is walked along closely covers the picture, one farther away does not', () => {
    const past = (z: number) => footingFrom([...slab(-30, 30, -30, 30, 0), ...box(-1, 1, 1, 3, z - 0.05, z)]);
    const aside: Walk = { ...straight, gaze: { kind: 'bearing', pan: 0, tilt: 0 } };
    const near = check(aside, past(-0.32)).find(({ rule }) => rule === 'near')!;
    expect(near.worst).toBeCloseTo(0.32, 2);
    expect(rules(check(aside, past(-1)))).not.toContain('near');
  });
});

describe('eyes at the height of people', () => {
  const lifted = (value: number): Walk => ({
    ...straight,
    tracks: {
      lift: [0, 5, 10].map((time, k) => ({
        id: newId(),
        anchor: { by: 'time' as const, time },
        value: k === 1 ? value : 0,
        ease: 'smooth' as const,
      })),
    },
  });

  test('a lift beyond it is said with how high, and held by its fix', () => {
    const [high] = check(lifted(1.4));
    expect(high).toMatchObject({ rule: 'eye height', severity: 'note', limit: FIRST_LIMITS.eyeHigh });
    expect(high!.worst).toBeCloseTo(3, 1);
    expect(check(mend(lifted(1.4), high!))).toEqual([]);
    const [low] = check(lifted(-1.2));
    expect(low!.limit).toBe(FIRST_LIMITS.eyeLow);
    expect(check(mend(lifted(-1.2), low!))).toEqual([]);
  });

  test('a lift within it is nobody’s business', () => {
    expect(check(lifted(0.3))).toEqual([]);
  });
});

describe('pans while standing', () => {
  /** Looks to the left for a while during a stay. */
  const glancing = (pan: number, handOver: number, seconds = 12): Walk => ({
    ...straight,
    pace: {
      ...straight.pace,
      shape: 'soft',
      pauses: [{ id: newId(), anchor: { by: 'station', station: 6 }, seconds }],
    },
    gazeSpans: [
      {
        id: newId(),
        from: { by: 'time', time: 8 },
        to: { by: 'time', time: 17 },
        gaze: { kind: 'bearing', pan: -Math.PI / 2 + pan, tilt: 0 },
        handOver,
      },
    ],
  });

  test('a width of the picture in less than seven seconds is noted, a slower one and a mere glance are not', () => {
    // 24 mm on 36 mm: 73.7° across, so 10.5° a second. Minimum jerk is at its fastest 1.875 times its mean.
    const [crossing] = check(glancing(1, 4));
    expect(crossing!.rule).toBe('crossing');
    expect(crossing!.worst).toBeCloseTo(73.74 / ((57.3 / 4) * 1.875), 0);
    expect(check(glancing(0.25, 2))).toEqual([]);
    expect(check(glancing(1, 4))).toMatchObject([{ rule: 'crossing' }, { rule: 'crossing' }]);
  });

  test('who goes round something small does not stand, however slowly; who turns beside it does', () => {
    const at: Vec3 = [0, 0.01, 0];
    /** Seven centimetres from it, all round in twelve seconds: 4 cm a second. */
    const round = (radius: number) => ({
      duration: 12,
      looks: [{ from: 0, to: 12, at: () => at, reach: 0 }],
      sampleAt: (time: number) => {
        const angle = (2 * Math.PI * time) / 12;
        return standing(
          {
            position: [0.07 * Math.sin(radius ? angle : 0), 0.03, 0.07 * Math.cos(radius ? angle : 0)],
            orientation: orientationOf({ pan: angle, tilt: 0, roll: 0 }),
          },
          DEFAULT_LENS,
          time,
        );
      },
    });
    expect(crossingFindings(round(0.07), FIRST_LIMITS, 1.5)).toEqual([]);
    expect(crossingFindings(round(0), FIRST_LIMITS, 1.5)).toMatchObject([{ rule: 'crossing' }]);
  });

  test('the limit is the project’s', () => {
    const walk = glancing(1, 4);
    const lax = { ...FIRST_LIMITS, crossing: 2 };
    expect(checkMove(compiled(walk, open), open, lax, FIRST_WALKER)).toEqual([]);
  });
});

describe('fixes', () => {
  test('a hundred hasty turns: every fix removes its finding, and none adds one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.8, max: 2.4, noNaN: true }),
        fc.double({ min: 0.4, max: 1.2, noNaN: true }),
        fc.boolean(),
        (pan, handOver, left) => {
          const walk: Walk = {
            ...walkThrough([
              [-25, 0, 0],
              [25, 0, 0],
            ]),
            gazeSpans: [
              {
                id: newId(),
                from: { by: 'time', time: 20 },
                to: { by: 'time', time: 30 },
                gaze: { kind: 'bearing', pan: -Math.PI / 2 + (left ? pan : -pan), tilt: 0 },
                handOver,
              },
            ],
          };
          let now = walk;
          let before = check(walk);
          // What is bounded may come as a turn that is fast, or as a gaze that is late.
          expect(before.length).toBeGreaterThan(0);
          // The turn there and the turn away are two findings; mending one may mend both.
          for (let round = 0; round < 4 && before.length > 0; round += 1) {
            const first = before[0]!;
            expect(first.fix?.kind).toBe('softer turn');
            now = mend(now, first);
            const after = check(now);
            expect(after.length).toBeLessThan(before.length);
            before = after;
          }
          expect(before).toEqual([]);
        },
      ),
      { numRuns: 100 },
    );
  });

  test('a corner that is taken too fast is walked more slowly there, and nowhere else', () => {
    const corner: Walk = {
      ...walkThrough([
        [-10, 0, 0],
        [0, 0, 0],
        [0, 0, 10],
      ]),
      pace: { by: 'speed', speed: 1.4, duration: 1, shape: 'soft' },
      gaze: { kind: 'ahead', distance: 0.6 },
    };
    const [turn] = check(corner);
    expect(turn).toMatchObject({ rule: 'turn', fix: { kind: 'slower here' } });
    const slower = mend(corner, turn!);
    expect(check(slower)).toEqual([]);
    const speedAt = (walk: Walk, station: number) => {
      const move = compiled(walk, open);
      return move.channels.find(({ id }) => id === 'pace')!.at(move.path!.timeAt(station));
    };
    expect(speedAt(slower, 5)).toBeCloseTo(speedAt(corner, 5), 3);
    expect(speedAt(slower, 10)).toBeLessThan(0.9 * speedAt(corner, 10));
  });

  test('a turn on the spot that has too little time gets a longer stay', () => {
    const back: Walk = {
      ...walkThrough([
        [-6, 0, 0],
        [0, 0, 0],
        [0, 0, 8],
      ]),
      pace: {
        by: 'speed',
        speed: 1,
        duration: 1,
        shape: 'soft',
        pauses: [{ id: newId(), anchor: { by: 'station', station: 5.8 }, seconds: 2 }],
      },
    };
    let now = back;
    for (let round = 0; round < 4; round += 1) {
      const [first] = check(now).filter(({ fix }) => fix?.kind === 'softer turn');
      if (first) now = mend(now, first);
    }
    expect(rules(check(back))).toContain('crossing');
    expect(check(now)).toEqual([]);
    expect(now.pace.pauses![0]!.seconds).toBeGreaterThan(4);
  });
});
