import { beforeAll, describe, expect, test } from '@jest/globals';
import { PlaneGeometry } from 'three';
import { FIRST_WALKER, type Vec3 } from '../document/index.ts';
import { BUILDINGS, modelOfBuilding, moved, plain } from './buildings.fixture.ts';
import { OUTSIDE } from './storeys.ts';
import { surveyModel, type Survey } from './survey.ts';
import { soupOf } from './soup.fixture.ts';
import { drawWalkway, Walkway } from './walkway.ts';

/** Side of a cell of the navigation mesh, metres: doors must be passable wherever they stand on its grid. */
const GRID = 0.1;

const sorted = (areas: readonly number[]) => [...areas].sort((a, b) => a - b);

/** Does any of a list of plan triangles cover a point? */
function covers(triangles: readonly number[], [x, , z]: Vec3): boolean {
  for (let o = 0; o < triangles.length; o += 6) {
    const side = (a: number, b: number) =>
      (triangles[o + b]! - triangles[o + a]!) * (z - triangles[o + a + 1]!) -
      (triangles[o + b + 1]! - triangles[o + a + 1]!) * (x - triangles[o + a]!);
    const sides = [side(0, 2), side(2, 4), side(4, 0)];
    if (sides.every((value) => value > 0) || sides.every((value) => value < 0)) return true;
  }
  return false;
}

// Outside check: areas and heights follow from how each building was made, by formula.
describe.each(BUILDINGS)('$name', (building) => {
  let survey: Survey;
  beforeAll(() => {
    survey = surveyModel(modelOfBuilding(building), FIRST_WALKER).survey;
  });

  test('has its storeys, with their rooms and voids to one part in a hundred', () => {
    expect(survey.storeys.map(({ elevation }) => elevation)).toEqual(
      building.storeys.map(({ elevation }) => expect.closeTo(elevation, 3)),
    );
    building.storeys.forEach(({ outside = false, rooms, voids = [] }, i) => {
      const found = survey.storeys[i]!;
      expect(found.name === OUTSIDE).toBe(outside);
      const areas = sorted(found.rooms.map(({ area }) => area));
      expect(areas).toHaveLength(rooms.length);
      sorted(rooms).forEach((area, k) => expect(Math.abs(areas[k]! / area - 1)).toBeLessThan(0.01));
      const airs = sorted(found.voids.map(({ area }) => area));
      expect(airs).toHaveLength(voids.length);
      sorted(voids).forEach((area, k) => expect(Math.abs(airs[k]! / area - 1)).toBeLessThan(0.01));
      // What a storey is said to have is what its rooms have.
      if (!outside)
        expect(found.area).toBeCloseTo(
          areas.reduce((sum, area) => sum + area, 0),
          6,
        );
    });
  });

  test('nobody walks over its voids, and every door that is wide enough passes at ten places of the grid', async () => {
    const still = (await Walkway.build(modelOfBuilding(building), survey, FIRST_WALKER))!;
    const drawn = drawWalkway(survey, still);
    for (const at of building.nowhere) {
      const storey = drawn.storeys.find(({ elevation }) => Math.abs(elevation - at[1]) < 0.01)!;
      expect(covers(storey.walkway, at)).toBe(false);
    }
    const shut: string[] = [];
    for (let n = 0; n < 10; n += 1) {
      const off: [number, number] = [(n * GRID) / 10, (((n * 7) % 10) * GRID) / 10];
      const there = moved(building, 0, off);
      const walkway = (await Walkway.build(modelOfBuilding(there), survey, FIRST_WALKER))!;
      there.doors.forEach(({ from, to }, k) => {
        const way = walkway.way(from, to);
        if (!way) shut.push(`door ${k + 1}, ${off.join(' ')}`);
      });
    }
    expect(shut).toEqual([]);
  });
});

test.each([
  ['narrower than the walker', { at: 2.2, width: 0.3, head: 2.1 }],
  ['lower than the walker', { at: 2.2, width: 0.9, head: 1.8 }],
])('a door that is %s is shut', async (_, door) => {
  const { doors, ...house } = plain('A house', { door });
  const model = modelOfBuilding({ ...house, doors });
  const walkway = (await Walkway.build(model, surveyModel(model, FIRST_WALKER).survey, FIRST_WALKER))!;
  expect(walkway.way(doors[0]!.from, doors[0]!.to)).toBeNull();
  // Both sides are floor all the same.
  for (const at of [doors[0]!.from, doors[0]!.to]) expect(walkway.way(at, [at[0], at[1], at[2] + 1])).not.toBeNull();
});

test('a floor of very many triangles, as scans have it, is walked on to its ends', async () => {
  const count = 300;
  const soup = soupOf(new PlaneGeometry(8, 8, count, count).rotateX(-Math.PI / 2));
  const walkway = (await Walkway.over(
    soup,
    { bounds: { min: [-4, -0.1, -4], max: [4, 2, 4] }, storeys: [] },
    FIRST_WALKER,
  ))!;
  const corners: Vec3[] = [-3.5, 3.5].flatMap((x) => [-3.5, 3.5].map((z): Vec3 => [x, 0, z]));
  for (const to of corners) expect(walkway.way([0, 0, 0], to)).not.toBeNull();
});
