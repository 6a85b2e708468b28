import { describe, expect, test } from '@jest/globals';
import {
  DEFAULT_LENS,
  FIRST_LIMITS,
  FIRST_WALKER,
  type MoveBody,
  type Rate,
  type ShotBody,
} from '@eskovan/core/document';
import { Footing } from '@eskovan/core/survey';
import { uuid } from '../testing/studio.tsx';
import { findingsOfShots } from './shot-findings.ts';
import { ReelWork, type OrderedShot, type ReelOrder } from './reel-work.ts';
import type { SiteOrder } from './site-order.ts';

const nothing = new Footing(new Float32Array(0), new Float32Array(0));
const SITE: SiteOrder = {
  floorUrl: '',
  walker: FIRST_WALKER,
  limits: FIRST_LIMITS,
  aspect: 16 / 9,
  parts: [],
  moving: null,
};
const RATE: Rate = { num: 25, den: 1 };
/** Straight on for four seconds. */
const TRAVEL: MoveBody = {
  kind: 'travel',
  poses: [0, 4].map((time, i) => ({
    id: uuid(60 + i),
    time,
    hold: 0,
    position: [0, 1.6, -time * 3],
    orientation: [0, 0, 0, 1],
    span: 'smooth',
  })),
  turning: 'level',
  ends: 'rest',
  gaze: { kind: 'kept' },
  lens: DEFAULT_LENS,
};
const REEL = uuid(1);

const moveShot = (n: number, change: Partial<ShotBody> = {}, body: MoveBody | null = TRAVEL): OrderedShot => ({
  id: uuid(10 + n),
  name: `Shot ${n}`,
  body: { reel: REEL, use: { kind: 'move', move: uuid(5), from: 0 }, ...change },
  move: body && { id: uuid(5), body },
  view: null,
  scene: 'day',
  number: null,
  motion: null,
});
const cardShot = (n: number, change: Partial<ShotBody> = {}): OrderedShot => ({
  ...moveShot(n, {
    use: { kind: 'title', title: { heading: 'Hello', text: '', ground: 'paper', align: 'middle', logo: true } },
    seconds: 2,
    ...change,
  }),
  move: null,
  scene: null,
});

function workOn(shots: OrderedShot[], change: Partial<ReelOrder> = {}): ReelWork {
  const work = new ReelWork();
  work.setSite(SITE, nothing);
  const frame = { width: 16, height: 9 };
  work.setReel({ shots, rate: RATE, whole: frame, ratio: frame, body: {}, moving: false, ...change });
  return work;
}

describe('a reel where it is worked on', () => {
  test('moves are measured once for each version of them', () => {
    const work = workOn([moveShot(1)]);
    expect(work.measure([{ id: uuid(5), body: TRAVEL }])).toEqual({ [uuid(5)]: { duration: 4, loops: false } });
    expect(work.compiledOf(uuid(11))).toBe(work.compiledOf(uuid(11)));
    const empty = { ...TRAVEL, poses: [] } as MoveBody;
    expect(work.measure([{ id: uuid(6), body: empty }])[uuid(6)]).toBeNull();
  });

  test('equal pictures have equal names, and everything that is seen is in the name', () => {
    const work = workOn([moveShot(1), moveShot(2)]);
    const names = work.keysOf(0, 200);
    expect(names).toHaveLength(200);
    // The same move twice shows the same frames twice.
    expect(names.slice(100)).toEqual(names.slice(0, 100));
    expect(new Set(names.slice(10, 90)).size).toBe(80);
    const dusk = workOn([{ ...moveShot(1), scene: 'dusk' }]).keysOf(50, 51);
    const said = workOn([moveShot(1, { caption: { text: 'Deck', place: 'foot' } })]).keysOf(50, 51);
    const tall = workOn([moveShot(1)], { ratio: { width: 9, height: 16 } }).keysOf(50, 51);
    expect(new Set([names[50], ...dusk, ...said, ...tall]).size).toBe(4);
    // A card fills its picture, whatever that is.
    const [wide] = workOn([cardShot(1)]).keysOf(0, 1);
    expect(workOn([cardShot(1)], { ratio: { width: 9, height: 16 } }).keysOf(0, 1)[0]).not.toBe(wide);
    // Where nothing moves by itself, when it is does not matter; where something does, it does.
    const moving = workOn([moveShot(1)], { moving: true });
    expect(moving.keysOf(50, 51)[0]).not.toBe(names[50]);
  });

  test('cards have their words and the logo of the reel; words over pictures come and go', () => {
    const work = workOn([cardShot(1), moveShot(2, { caption: { text: 'Deck', place: 'foot' } })], {
      body: { logo: { sha256: 'a'.repeat(64), size: 1, mediaType: 'image/png' } },
    });
    expect(work.pictureAt(10).layers).toMatchObject([{ kind: 'card', logo: 'a'.repeat(64) }]);
    const parts = [50, 56, 100].map((frame) => work.pictureAt(frame).words[0]?.part ?? 0);
    expect(parts[0]).toBeLessThan(parts[1]!);
    expect(parts[2]).toBe(1);
  });

  test('a clip shows what its file has at that time, backwards too; the number of a view stands in its corner', () => {
    const clip = (backwards: boolean) =>
      workOn([
        {
          ...moveShot(1, {
            use: {
              kind: 'clip',
              file: { sha256: 'c'.repeat(64), size: 1, mediaType: 'video/mp4' },
              fileName: 'site.mp4',
              duration: 6,
              from: 1,
              to: 5,
              ...(backwards && { backwards }),
            },
          }),
          move: null,
          scene: null,
        },
      ]);
    expect(clip(false).reel.plan.frames).toBe(100);
    expect(clip(false).pictureAt(25).layers).toMatchObject([{ kind: 'clip', file: 'c'.repeat(64), time: 2 }]);
    expect(clip(true).pictureAt(25).layers).toMatchObject([{ kind: 'clip', time: 4 }]);
    const numbered = workOn([{ ...moveShot(1), number: 7 }]).pictureAt(50);
    expect(numbered.words).toEqual([{ words: { text: '7', place: 'corner' }, part: 1 }]);
  });

  test('objects are found by model and name; what is not there is left out', () => {
    const work = new ReelWork();
    const bounds = { min: [0, 0, 0], max: [1, 1, 1] } as const;
    work.setSite({ ...SITE, parts: [{ model: uuid(1), name: 'Desk / Scope', bounds } as never] }, nothing);
    const wanted = ['Desk / Scope', 'Bench'].map((name) => ({ model: uuid(1), name }));
    expect(work.objectsOf(wanted)).toEqual([{ ...wanted[0], bounds }]);
  });

  test('what is gone, and what waits for its light, is said by name instead of shown', () => {
    const work = workOn([moveShot(1, {}, null), { ...moveShot(2), scene: null }]);
    expect(work.pictureAt(0).layers).toMatchObject([{ kind: 'gone', name: 'Shot 1' }]);
    expect(work.pictureAt(work.reel.plan.shots[1]!.start + 1).layers).toMatchObject([{ kind: 'gone', name: 'Shot 2' }]);
  });

  test('time that runs through the reel holds for all but those that go with what moves', () => {
    const ride: MoveBody = {
      ...TRAVEL,
      kind: 'ride',
      carrier: null,
      seat: [0, 0, 0],
      facing: [0, 0, 0, 1],
      softness: 0,
      horizon: 'level',
      duration: 4,
    } as unknown as MoveBody;
    const work = workOn([moveShot(1), moveShot(2)], { body: { throughout: true }, moving: true });
    const time = (of: ReelWork, frame: number) => {
      const [layer] = of.pictureAt(frame).layers;
      return layer?.kind === 'scene' ? layer.sample.siteTime : null;
    };
    expect(time(work, 125)).toBeCloseTo(5, 9);
    expect(time(workOn([moveShot(1), moveShot(2)], { moving: true }), 125)).toBeCloseTo(1, 9);
    expect(workOn([moveShot(1, {}, ride)]).reel.plan.shots).toHaveLength(1);
  });

  test('findings of a move are told at the reel’s time, and only for what is shown of it', () => {
    const hasty: MoveBody = {
      ...TRAVEL,
      poses: (TRAVEL as Extract<MoveBody, { kind: 'travel' }>).poses.map((pose, i) => ({
        ...pose,
        orientation: i ? [0, 1, 0, 0] : [0, 0, 0, 1],
      })),
    } as MoveBody;
    const work = workOn([cardShot(1), moveShot(2, {}, hasty)]);
    const all = findingsOfShots(work);
    expect(all.length).toBeGreaterThan(0);
    all.forEach(({ from, to }) => {
      expect(from).toBeGreaterThanOrEqual(2);
      expect(to).toBeLessThanOrEqual(6 + 1e-6);
    });
    const first = workOn([moveShot(2, { use: { kind: 'move', move: uuid(5), from: 0, to: 0.1 } }, hasty)]);
    expect(findingsOfShots(first).length).toBeLessThanOrEqual(all.length);
  });
});
