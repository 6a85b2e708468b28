import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FIRST_LIMITS, FIRST_WALKER, type Path } from '../document/index.ts';
import { box, walkAlong } from '../move/floor-scenes.fixture.ts';
import { CompiledWalk } from '../move/index.ts';
import { bare, modelOfBuilding } from '../survey/buildings.fixture.ts';
import { footingOf, type Footing } from '../survey/index.ts';
import { moveClear } from '../wayfind/index.ts';
import { tightPlaces } from './clearance.ts';
import { checkMove } from './index.ts';

let serial = 0;
const newId = () => `00000000-0000-4000-8000-${String((serial += 1)).padStart(12, '0')}`;
const { radius } = FIRST_WALKER;

interface Pillar {
  /** Middle and half its side, metres. */
  x: number;
  z: number;
  half: number;
}

/** A floor of 30 × 12 m with pillars on it. */
function floorWith(pillars: readonly Pillar[]): Footing {
  const triangles = [
    ...box(-15, 15, -0.2, 0, -6, 6),
    ...pillars.flatMap(({ x, z, half }) => box(x - half, x + half, 0, 2.4, z - half, z + half)),
  ];
  return footingOf(modelOfBuilding(bare('a floor with pillars', triangles)), FIRST_WALKER);
}

type Points = readonly (readonly [number, number])[];
const pathOf = (points: Points): Path => ({
  nodes: points.map(([x, z]) => ({ id: newId(), x, y: 0, z, kind: 'smooth', radius: 0.5 })),
  closed: false,
});
const walkThrough = (points: Points, footing: Footing) => walkOn(pathOf(points), footing);

const walkOn = (path: Path, footing: Footing): CompiledWalk =>
  new CompiledWalk(walkAlong(path), footing, { walker: FIRST_WALKER });

/** A bent path from one end of the floor to the other. */
const anyPath = fc
  .array(fc.double({ min: -2, max: 2, noNaN: true }), { minLength: 3, maxLength: 5 })
  .map((aside) => aside.map((z, i) => [-12 + (24 * i) / (aside.length - 1), z] as const));

/** Level distance from a square to a point. */
const apart = ({ x, z, half }: Pillar, px: number, pz: number) =>
  Math.hypot(Math.max(0, Math.abs(px - x) - half), Math.max(0, Math.abs(pz - z) - half));

/** Least distance of a path to a pillar, every millimetre of it. */
function nearest({ curve }: CompiledWalk, pillar: Pillar): number {
  const point = new Float64Array(2);
  let least = Infinity;
  for (let s = 0; s <= curve.length;) {
    curve.pointAt(s, point);
    const away = apart(pillar, point[0]!, point[1]!);
    least = Math.min(least, away);
    // Going on so far brings it no nearer than it has been.
    s += Math.max(0.001, away - least);
  }
  return least;
}

/** A pillar whose near side is so far beside a place of the path. */
function beside({ curve }: CompiledWalk, part: number, off: number, half: number, side: 1 | -1): Pillar {
  const [at, way] = [new Float64Array(2), new Float64Array(2)];
  curve.pointAt(part * curve.length, at);
  curve.directionAt(part * curve.length, way);
  // As a square stands askew to the path, its corner may be nearer: what counts is measured afterwards.
  const away = off + half;
  return { x: at[0]! - way[1]! * side * away, z: at[1]! + way[0]! * side * away, half };
}

const planted = fc.record({
  points: anyPath,
  part: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
  half: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
  side: fc.constantFrom<1 | -1>(1, -1),
});

describe('room for the shoulders', () => {
  test('what is nearer than they need is found, to a centimetre of what every millimetre of the path says', () => {
    fc.assert(
      fc.property(planted, fc.double({ min: 0.03, max: 0.2, noNaN: true }), ({ points, part, half, side }, off) => {
        const pillar = beside(walkThrough(points, floorWith([])), part, off, half, side);
        const footing = floorWith([pillar]);
        const walk = walkThrough(points, footing);
        const least = nearest(walk, pillar);
        // One that is gone through is found by another rule.
        fc.pre(least > 0.01 && least < radius - 0.02);
        const found = tightPlaces(walk, footing, FIRST_WALKER);
        expect(found).toHaveLength(1);
        expect(Math.abs(found[0]!.worst - least)).toBeLessThan(0.01);
      }),
      { numRuns: 100 },
    );
  });

  test('a path that keeps clear is told nothing', () => {
    fc.assert(
      fc.property(planted, fc.double({ min: 0.3, max: 2, noNaN: true }), ({ points, part, half, side }, off) => {
        const pillar = beside(walkThrough(points, floorWith([])), part, off, half, side);
        const footing = floorWith([pillar]);
        const walk = walkThrough(points, footing);
        fc.pre(nearest(walk, pillar) >= radius);
        expect(tightPlaces(walk, footing, FIRST_WALKER)).toEqual([]);
        expect(checkMove(walk, footing, FIRST_LIMITS).filter(({ severity }) => severity === 'problem')).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });

  test('led clear, the finding is gone and nothing is in the way instead; nodes stay', () => {
    fc.assert(
      fc.property(planted, fc.double({ min: 0.03, max: 0.2, noNaN: true }), ({ points, part, half, side }, off) => {
        const pillar = beside(walkThrough(points, floorWith([])), part, off, half, side);
        const footing = floorWith([pillar]);
        const before = pathOf(points);
        const walk = walkOn(before, footing);
        const least = nearest(walk, pillar);
        fc.pre(least > 0.01 && least < radius - 0.02);
        const [finding] = checkMove(walk, footing, FIRST_LIMITS).filter(({ rule }) => rule === 'clearance');
        const { fix } = finding!;
        if (fix?.kind !== 'clear') throw new Error('it offers to lead the path clear');
        const after = moveClear(before, fix.stretch, footing, { ...FIRST_WALKER, eyeHeight: 1.6 }, newId);
        expect(after.nodes.map(({ id }) => id)).toEqual(expect.arrayContaining(before.nodes.map(({ id }) => id)));
        const mended = walkOn(after, footing);
        const found = checkMove(mended, footing, FIRST_LIMITS).filter(
          ({ rule }) => rule !== 'turn' && rule !== 'gaze off',
        );
        expect(found).toEqual([]);
        // Far from it the path is what it was.
        expect(mended.sampleAt(0).position[0]).toBeCloseTo(walk.sampleAt(0).position[0], 6);
      }),
      { numRuns: 100 },
    );
  });

  test('between things that are nearer than the shoulders are wide, it says so and how much', () => {
    const footing = floorWith([
      { x: 0, z: 0.35, half: 0.2 },
      { x: 0, z: -0.35, half: 0.2 },
    ]);
    const [finding] = checkMove(
      walkThrough(
        [
          [-5, 0],
          [5, 0],
        ],
        footing,
      ),
      footing,
      FIRST_LIMITS,
    );
    expect(finding).toMatchObject({ rule: 'clearance', limit: radius });
    expect(finding!.worst).toBeCloseTo(0.15, 6);
  });
});
