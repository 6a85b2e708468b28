import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS, FIRST_LIMITS, type Vec3 } from '../document/index.ts';
import { anglesOf, orientationOf, toRadians } from '../geometry/index.ts';
import { box, footingFrom, slab } from '../move/floor-scenes.fixture.ts';
import { Footing } from '../survey/index.ts';
import type { StillFinding } from './still-finding.ts';
import { checkStill } from './still.ts';

const ASPECT = 16 / 9;
/** A floor of ten metres with a pillar on it. */
const site = { footing: footingFrom([...slab(-5, 5, -5, 5, 0), ...box(-0.3, 0.3, 0, 3, -2.3, -1.7)]), size: 10 };
const camera = (position: Vec3, angles: Partial<Record<'pan' | 'tilt' | 'roll', number>> = {}, focalLengthMm = 28) => ({
  pose: { position, orientation: orientationOf({ pan: 0, tilt: 0, roll: 0, ...angles }) },
  lens: { ...DEFAULT_LENS, focalLengthMm },
});
const check = (given: ReturnType<typeof camera>, where: typeof site | null = site) =>
  checkStill(given, ASPECT, where, FIRST_LIMITS);
const only = (findings: readonly StillFinding[], rule: StillFinding['rule']) => {
  expect(findings.map((finding) => finding.rule)).toEqual([rule]);
  return findings[0]!;
};
const mended = (finding: StillFinding, where: typeof site | null = site) =>
  checkStill(finding.fix!, ASPECT, where, FIRST_LIMITS);

describe('a still before it is rendered', () => {
  test('a level eye of a person with room before it is fine', () => {
    expect(check(camera([3, 1.6, 3]))).toEqual([]);
  });

  test('a horizon off level is a problem, and is levelled without another look', () => {
    const finding = only(check(camera([3, 1.6, 3], { roll: toRadians(1.5), pan: 0.3 })), 'off level');
    expect(finding).toMatchObject({ severity: 'problem', worst: expect.closeTo(1.5, 6), limit: FIRST_LIMITS.offLevel });
    expect(anglesOf(finding.fix!.pose.orientation).pan).toBeCloseTo(0.3, 9);
    expect(mended(finding)).toEqual([]);
    expect(check(camera([3, 1.6, 3], { roll: toRadians(0.2) }))).toEqual([]);
  });

  test('verticals that lean are noted with a camera that keeps them upright; looking too steeply has none', () => {
    const finding = only(check(camera([3, 1.6, 3], { tilt: toRadians(8) }, 35)), 'converging');
    expect(finding.severity).toBe('note');
    expect(finding.worst).toBeGreaterThan(5);
    expect(finding.fix!.lens.shift[1]).toBeGreaterThan(0);
    expect(mended(finding)).toEqual([]);
    expect(check(camera([3, 1.6, 3], { tilt: toRadians(0.3) }))).toEqual([]);
    expect(only(check(camera([3, 1.6, 3], { tilt: toRadians(-80) }, 60)), 'converging').fix).toBeNull();
  });

  test('who looks down from above, or at a thing on a table, tilts on purpose: verticals need not be upright', () => {
    const down = (height: number, tilt: number, where = site) =>
      check(camera([3, height, 3], { tilt: toRadians(tilt) }, 35), where).map(({ rule }) => rule);
    expect(down(9, -25)).toEqual([]);
    expect(down(9, -8)).toEqual(['converging']);
    expect(down(1.6, -25)).toEqual(['converging']);
    expect(down(9, 25)).toEqual(['converging']);
    expect(down(0.5, -12, { ...site, size: 0.4 })).toEqual([]);
    // Over no ground at all, as beside a landscape.
    expect(check(camera([30, 20, 30], { tilt: toRadians(-25) }, 35))).toEqual([]);
  });

  test('what a wide lens draws out by more than a third, and the longer one that does not', () => {
    // Half of 36 mm at 20 mm is 42.0° off the axis, 1 / cos = 1.345; at 24 mm 36.9°, 1.25.
    const finding = only(check(camera([3, 1.6, 3], {}, 20)), 'stretched');
    expect(finding.worst).toBeCloseTo(0.345, 3);
    expect(finding.fix!.lens.focalLengthMm).toBe(21);
    expect(mended(finding)).toEqual([]);
    expect(check(camera([3, 1.6, 3], {}, 24))).toEqual([]);
  });

  test.each([
    [0.5, 'eye too low', 0.9],
    [2.6, 'eye too high', 2],
  ] as const)('an eye at %d m over the floor: %s', (height, rule, limit) => {
    const finding = only(check(camera([3, height, 3])), rule);
    expect(finding).toMatchObject({ worst: expect.closeTo(height, 6), limit, point: [3, expect.closeTo(0, 6), 3] });
    expect(mended(finding)).toEqual([]);
  });

  test('from far above, beside the floor, and about a thing on a table nobody stands', () => {
    expect(check(camera([3, 9, 3]))).toEqual([]);
    expect(check(camera([30, 0.4, 30]))).toEqual([]);
    expect(check(camera([3, 0.5, 3]), { ...site, size: 0.4 })).toEqual([]);
  });

  test('something before the camera, wherever in the picture, and nothing behind it', () => {
    const finding = only(check(camera([0, 1.6, -1.45])), 'too near');
    expect(finding).toMatchObject({ severity: 'problem', worst: expect.closeTo(0.25, 2), fix: null });
    expect(finding.point![2]).toBeCloseTo(-1.7, 5);
    // At the edge of the picture only.
    only(check(camera([-0.55, 1.6, -1.45])), 'too near');
    expect(check(camera([0, 1.6, -1.45], { pan: Math.PI }))).toEqual([]);
    expect(check(camera([0, 1.6, 0]))).toEqual([]);
  });

  test('a picture without perspective has no eye to be too high, and what is cut off is not in the way', () => {
    const near = camera([0, 1.6, -1.4]);
    expect(check(near).map(({ rule }) => rule)).toContain('too near');
    expect(check({ ...near, lens: { ...near.lens, nearCut: 0.5 } })).toEqual([]);
    const above = camera([3, 2.6, 3]);
    expect(check({ ...above, lens: { ...above.lens, parallel: 8 } })).toEqual([]);
  });

  test('a site of which no walls are known is not called fine; one that is not measured is not looked at', () => {
    const old = { footing: new Footing(Float32Array.from(slab(-5, 5, -5, 5, 0))), size: 10 };
    expect(only(check(camera([3, 1.6, 3]), old), 'not looked at').severity).toBe('note');
    expect(check(camera([0, 1.6, -1.45]), null)).toEqual([]);
  });

  test('problems come before notes', () => {
    const found = check(camera([0, 1.6, -1.45], { tilt: toRadians(9), roll: toRadians(2) }, 18));
    const severities = found.map(({ severity }) => severity);
    expect(severities).toEqual([...severities].sort((a, b) => (a === b ? 0 : a === 'problem' ? -1 : 1)));
    expect(found.length).toBeGreaterThan(2);
  });
});

describe('what sight lines tell', () => {
  /** Open ground with a house of 12 m on it, its front at z = 0, and a crate before it. */
  const yard = {
    footing: footingFrom([...slab(-40, 40, -40, 40, 0), ...box(-6, 6, 0, 6, -8, 0), ...box(3, 4, 0, 1, 4, 5)]),
    size: 80,
  };
  const rules = (findings: readonly StillFinding[]) => findings.map(({ rule }) => rule);

  test('a facade straight on is noted, with a camera over the corner; over the corner nothing is', () => {
    const front = camera([0, 1.6, 9]);
    const finding = check(front, yard).find(({ rule }) => rule === 'straight on')!;
    expect(finding.worst).toBeCloseTo(0, 6);
    expect(rules(mended(finding, yard))).not.toContain('straight on');
    expect(rules(check(camera([10, 1.6, 9], { pan: toRadians(45) }), yard))).not.toContain('straight on');
    // A little off is still flat, more is not.
    expect(rules(check(camera([0, 1.6, 9], { pan: toRadians(4) }), yard))).toContain('straight on');
    expect(rules(check(camera([0, 1.6, 9], { pan: toRadians(20) }), yard))).not.toContain('straight on');
  });

  test('a wall of a room is no facade', () => {
    const room = {
      ...yard,
      footing: footingFrom([...slab(-9, 9, -9, 9, 0), ...slab(-9, 9, -9, 9, 3.2), ...box(-9, 9, 0, 3, -8, -7.8)]),
    };
    expect(rules(check(camera([0, 1.6, 0]), room))).not.toContain('straight on');
  });

  test('an eye inside a crate is told; one beside it, and one in a room, is not', () => {
    expect(rules(check(camera([3.5, 0.5, 4.5]), yard))).toContain('eye inside');
    expect(rules(check(camera([2.5, 0.5, 4.5]), yard))).not.toContain('eye inside');
    expect(rules(check(camera([0, 1.6, -4]), yard))).not.toContain('eye inside');
  });

  test('a subject that the frame cuts, one behind the camera, one behind a wall, and one that is seen', () => {
    const crate = { min: [3, 0, 4] as Vec3, max: [4, 1, 5] as Vec3 };
    const about = (given: ReturnType<typeof camera>, bounds = crate) =>
      checkStill(given, ASPECT, yard, FIRST_LIMITS, bounds);
    const only = (given: ReturnType<typeof camera>, bounds = crate) =>
      about(given, bounds).filter(({ rule }) => rule.startsWith('subject'));
    expect(only(camera([3.5, 1.2, 9]))).toEqual([]);
    const [cut] = only(camera([6, 1.2, 8]));
    expect(cut).toMatchObject({ rule: 'subject cut', worst: expect.any(Number) });
    expect(checkStill(cut!.fix!, ASPECT, null, FIRST_LIMITS, crate)).toEqual([]);
    expect(rules(only(camera([3.5, 1.2, 2])))).toEqual(['subject cut']);
    expect(only(camera([3.5, 1.2, 2]))[0]!.worst).toBeNull();
    // From behind the house.
    const [hidden] = only(camera([3.5, 1.6, -12], { pan: Math.PI })).filter(({ rule }) => rule === 'subject hidden');
    expect(hidden).toMatchObject({ severity: 'problem', worst: 0 });
  });
});
