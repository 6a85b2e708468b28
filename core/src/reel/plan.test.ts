import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS, type Rate } from '../document/index.ts';
import { randomFrom } from '../random.fixture.ts';
import {
  atItsPace,
  endRoom,
  fitReel,
  frameCount,
  HOLDS,
  planReel,
  reversed,
  rolled,
  sampleShot,
  shownAt,
  slipped,
  sourceTime,
  splitRoom,
  splitShot,
  startRoom,
  stretchedTo,
  trimEnd,
  trimStart,
  type ReelPlan,
  type ShotCamera,
} from './index.ts';
import { editedOf, moveShot, planOf, randomReel, RATES, viewShot, type MadeShot } from './reel.fixture.ts';

const totalOf = ({ shots }: ReelPlan) =>
  shots.reduce((sum, { frames }) => sum + frames, 0) - shots.reduce((sum, { overlap }) => sum + overlap, 0);

/** What has to hold of every plan, whatever was done to it. */
function expectWhole(plan: ReelPlan): void {
  const wrong = plan.shots.filter((shot, i) => {
    const before = plan.shots[i - 1];
    if (!Number.isInteger(shot.frames) || shot.frames < 1 || !(shot.to > shot.from)) return true;
    if (shot.start !== (before ? before.start + before.frames - shot.overlap : 0)) return true;
    // No frame is shared by three.
    return before !== undefined && shot.overlap + before.overlap >= before.frames;
  });
  expect([wrong, plan.frames]).toEqual([[], totalOf(plan)]);
}

/** All reels of a test: random ones at every rate. */
function eachReel(
  count: number,
  seed: number,
  look: (shots: MadeShot[], rate: Rate, random: () => number) => void,
): void {
  const random = randomFrom(seed);
  for (let i = 0; i < count; i += 1) look(randomReel(random), RATES[i % RATES.length]!, random);
}

const put = (shots: readonly MadeShot[], index: number, ...bodies: MadeShot['body'][]): MadeShot[] =>
  shots.flatMap((shot, i) =>
    i === index ? bodies.map((body, k) => ({ ...shot, id: k === 0 ? shot.id : `${shot.id}${k}`, body })) : [shot],
  );
const pick = (random: () => number, count: number) => Math.floor(random() * count);

describe('the plan of a reel', () => {
  test('lengths less overlaps are the total, in frames, for 10,000 random reels', () => {
    eachReel(10_000, 1, (shots, rate) => expectWhole(planOf(shots, rate)));
  });

  test('a trim with ripple changes the total by its frames and leaves every other shot as it is', () => {
    eachReel(2000, 2, (shots, rate, random) => {
      const plan = planOf(shots, rate);
      const i = pick(random, shots.length);
      const shot = editedOf(shots, plan, i);
      const wanted = Math.round((random() - 0.5) * 200);
      const [body, room, sign] =
        random() < 0.5
          ? [trimEnd(shot, wanted, rate), endRoom(shot, rate), 1]
          : [trimStart(shot, wanted, rate), startRoom(shot, rate), -1];
      const frames = Math.min(room.later, Math.max(room.earlier, wanted));
      const after = planOf(put(shots, i, body), rate);
      expectWhole(after);
      expect(after.shots[i]!.frames).toBe(shot.planned.frames + sign * frames);
      expect(after.shots.every((other, k) => k === i || other.frames === plan.shots[k]!.frames)).toBe(true);
      expect(after.shots[i]!.speed).toBeCloseTo(shot.planned.speed, 9);
    });
  });

  test('a rolled cut and a slip leave every start time but one as it was', () => {
    eachReel(2000, 3, (shots, rate, random) => {
      if (shots.length < 2) return;
      const plan = planOf(shots, rate);
      const i = pick(random, shots.length - 1);
      const by = Math.round((random() - 0.5) * 60);
      const both = rolled(editedOf(shots, plan, i), editedOf(shots, plan, i + 1), by, rate);
      const after = planOf(put(put(shots, i + 1, both.after), i, both.before), rate);
      expectWhole(after);
      const sums = (of: ReelPlan) => of.shots[i]!.frames + of.shots[i + 1]!.frames;
      expect(sums(after)).toBe(sums(plan));
      const slip = planOf(put(shots, i, slipped(editedOf(shots, plan, i), by, rate)), rate);
      expect(slip.shots.map(({ start }) => start)).toEqual(plan.shots.map(({ start }) => start));
      const moved = slip.shots[i]!;
      expect(moved.to - moved.from).toBeCloseTo(plan.shots[i]!.to - plan.shots[i]!.from, 9);
      expect(moved.lost).toBe(plan.shots[i]!.lost === 'shorter' ? moved.lost : null);
    });
  });

  test('a split shows frame by frame what was shown before', () => {
    eachReel(2000, 4, (shots, rate, random) => {
      const plan = planOf(shots, rate);
      const i = pick(random, shots.length);
      const shot = editedOf(shots, plan, i);
      const { earlier, later } = splitRoom(shot, plan.shots[i + 1]);
      if (later < earlier) return;
      const at = earlier + pick(random, later - earlier + 1);
      const after = planOf(put(shots, i, ...splitShot(shot, at, rate)), rate);
      expectWhole(after);
      expect(after.frames).toBe(plan.frames);
      const [first, second] = [after.shots[i]!, after.shots[i + 1]!];
      expect([first.frames, second.frames]).toEqual([at, shot.planned.frames - at]);
      if (shot.body.use.kind !== 'move') return;
      const time = (frame: number) => (frame * rate.den) / rate.num;
      const off = Array.from({ length: shot.planned.frames }, (_, k) => {
        const now = k < at ? sourceTime(first, time(k)) : sourceTime(second, time(k - at));
        return Math.abs(now - sourceTime(shot.planned, time(k)));
      });
      expect(Math.max(...off)).toBeLessThan(1e-6);
    });
  });

  test('any order of the same shots without joins is as long', () => {
    eachReel(500, 5, (shots, rate, random) => {
      const bare = shots.map(({ body: { join: _, ...body }, ...shot }) => ({ ...shot, body }));
      const shuffled = bare.map((shot) => [random(), shot] as const).sort((a, b) => a[0] - b[0]);
      const plan = planOf(
        shuffled.map(([, shot]) => shot),
        rate,
      );
      expectWhole(plan);
      expect(plan.frames).toBe(planOf(bare, rate).frames);
    });
  });

  test('fitted to a length it has that length to the frame, or says by how much not', () => {
    eachReel(2000, 6, (shots, rate, random) => {
      const plan = planOf(shots, rate);
      const wanted = Math.max(1, Math.round(plan.frames * (0.3 + random() * 2)));
      const fastest = 0.8 + random();
      const fitted = fitReel(
        shots.map((_, i) => ({ ...editedOf(shots, plan, i), fastest })),
        wanted,
        rate,
      );
      const after = planOf(
        shots.map((shot, i) => {
          const frames = fitted.frames.get(shot.id);
          return frames === undefined ? shot : { ...shot, body: stretchedTo(editedOf(shots, plan, i), frames, rate) };
        }),
        rate,
      );
      expectWhole(after);
      expect(after.frames - wanted).toBe(fitted.off);
      const free = shots.filter(({ body }) => !body.keeps).length;
      if (free === 0) expect(fitted.off).toBe(plan.frames - wanted);
      // Only joins that take up what a shot is given, being shorter than they are meant to be, leave a reel too short.
      const taken = after.shots.some(({ join, overlap }) => join && overlap < frameCount(join.seconds, rate));
      if (wanted > plan.frames && free > 0 && !taken) expect(fitted.off).toBe(0);
      // What exceeds its pace is said, and nothing else.
      const hasty = after.shots.flatMap(({ id, speed }, i) =>
        shots[i]!.body.use.kind === 'move' && !shots[i]!.body.keeps && speed > fastest + 1e-6 ? [id] : [],
      );
      expect(fitted.hasty.map(({ id }) => id)).toEqual(hasty);
      fitted.hasty.forEach(({ pace }) => expect(pace).toBeGreaterThan(1));
    });
  });

  test('changing the rate keeps seconds', () => {
    eachReel(300, 7, (shots) => {
      const seconds = RATES.map((rate) => (planOf(shots, rate).shots[0]!.frames * rate.den) / rate.num);
      expect(Math.max(...seconds) - Math.min(...seconds)).toBeLessThanOrEqual(1 / 23);
    });
  });

  test('a shot turned round twice, or stretched and put back at its pace, is what it was', () => {
    const rate = RATES[2]!;
    const body = moveShot({}, { from: 1, to: 4 });
    expect(reversed(reversed(body))).toEqual(body);
    const shots = [{ id: 'a', body, source: { duration: 9, loops: false } }];
    const slow = stretchedTo(editedOf(shots, planOf(shots, rate), 0), 150, rate);
    expect(planOf(put(shots, 0, slow), rate).shots[0]).toMatchObject({ frames: 150, speed: 0.5 });
    expect(atItsPace(slow)).toEqual(body);
  });

  test('what it shows is gone, or has become shorter: it says so and keeps its place', () => {
    const rate = RATES[2]!;
    const gone = planReel(
      [
        { id: 'a', body: moveShot() },
        { id: 'b', body: viewShot({ seconds: 2 }) },
      ],
      rate,
      () => null,
    );
    expect(gone.shots.map(({ lost, frames }) => [lost, frames])).toEqual([
      ['gone', 100],
      ['gone', 50],
    ]);
    const source = (duration: number) => () => ({ duration, loops: false });
    const shot = { id: 'a', body: moveShot({}, { from: 2, to: 6 }) };
    expect(planReel([shot], rate, source(9)).shots[0]!.lost).toBeNull();
    expect(planReel([shot], rate, source(5)).shots[0]).toMatchObject({ lost: 'shorter', frames: 75 });
    // A move that was shorter than where it begins is still seen.
    expect(planReel([shot], rate, source(1)).shots[0]).toMatchObject({ lost: 'shorter', frames: 1 });
  });

  test('joins take what both have to give, and never a frame that a third one has', () => {
    const rate = RATES[2]!;
    const hold = (id: string, seconds: number, join?: number) => ({
      id,
      body: viewShot({ seconds, ...(join && { join: { kind: 'dissolve' as const, seconds: join } }) }),
    });
    const plan = planReel([hold('a', 1), hold('b', 1, 5), hold('c', 4, 5)], rate, () => HOLDS);
    expectWhole(plan);
    expect(plan.shots.map(({ overlap }) => overlap)).toEqual([0, 24, 0]);
  });

  test('every frame shows its shot; shared ones show both, and a dip its colour at the cut', () => {
    const rate = RATES[2]!;
    const shots = [
      { id: 'a', body: viewShot({ seconds: 2 }) },
      { id: 'b', body: viewShot({ seconds: 2, join: { kind: 'dissolve', seconds: 0.4 } }) },
      { id: 'c', body: viewShot({ seconds: 2, join: { kind: 'dip', seconds: 0.8, to: 'paper' } }) },
    ];
    const plan = planReel(shots, rate, () => HOLDS);
    const at = (frame: number) => shownAt(plan, frame)!;
    expect(plan.frames).toBe(140);
    expect(at(39)).toMatchObject({ shot: { id: 'a' }, next: null, veil: null });
    expect(at(45)).toMatchObject({ shot: { id: 'a' }, next: { shot: { id: 'b' }, part: 0.5 } });
    expect(at(50)).toMatchObject({ shot: { id: 'b' }, next: null });
    expect(at(90)).toMatchObject({ shot: { id: 'c' }, veil: { to: 'paper', part: 1 } });
    expect(at(85).veil!.part).toBeCloseTo(0.5, 9);
    expect(at(101).veil).toBeNull();
    expect(at(-5).shot.id).toBe('a');
    expect(at(1e9).shot.id).toBe('c');
    expect(
      shownAt(
        planReel([], rate, () => null),
        0,
      ),
    ).toBeNull();
  });

  test('a view drifts as far as it says, also when it is split or trimmed', () => {
    const rate = RATES[2]!;
    const camera: ShotCamera = {
      kind: 'view',
      view: { pose: { position: [1, 2, 3], orientation: [0, 0, 0, 1] }, lens: DEFAULT_LENS },
    };
    const shots = [{ id: 'a', body: viewShot({ seconds: 4 }, { drift: { way: 'in', distance: 1 } }), source: HOLDS }];
    const plan = planOf(shots, rate);
    const zAt = (body: MadeShot['body'], planned: ReelPlan['shots'][number], seconds: number) =>
      sampleShot(body, planned, camera, seconds, rate).position[2];
    expect(zAt(shots[0]!.body, plan.shots[0]!, 4)).toBeCloseTo(2, 9);
    // Trimmed back to where it began, it has gone nowhere.
    const gone = viewShot({ seconds: 4 }, { drift: { way: 'in', distance: 1, gone: 0.25 } });
    const back = [{ ...shots[0]!, body: gone }];
    const use = trimStart(editedOf(back, planOf(back, rate), 0), -25, rate).use;
    expect(use).toEqual({ kind: 'view', view: expect.any(String), drift: { way: 'in', distance: 1.25 } });
    const [, second] = splitShot(editedOf(shots, plan, 0), 25, rate);
    const after = planOf([{ ...shots[0]!, body: second }], rate).shots[0]!;
    expect(zAt(second, after, 0)).toBeCloseTo(2.75, 9);
    expect(zAt(second, after, 3)).toBeCloseTo(2, 9);
  });
});
