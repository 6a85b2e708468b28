import { surfaceFor, wayFindings } from '@eskovan/core/check';
import { CompiledWalk, SAMPLE_STRIDE, tableAt } from '@eskovan/core/move';
import { type Footing, surveyModel, Walkway, type SurveyResult } from '@eskovan/core/survey';
import { DEFAULT_LENS, FIRST_WALKER, type Walk } from '@eskovan/core/document';
import { beforeAll, describe, expect, test } from '@jest/globals';
import {
  DECK,
  EAST,
  FLOOR,
  GALLERY_NORTH,
  GOING,
  HALL_EAST,
  HALL_WEST,
  INNER_WALL,
  OUTER_WALL,
  RISER,
  SOUTH,
  STAIR,
  STAIR_RISERS,
  WORKSHOP_NORTH,
} from './building/dimensions.ts';
import { nosing } from './building/stair.ts';
import { BOARDWALK_HEIGHT, BOARDWALK_WAY, boardwalkHeight } from './site/boardwalk.ts';
import { MOVES } from './seed/commission.ts';
import { buildModel, COMMISSION_MODELS, modelGlb, readCommission } from './index.ts';

let surveyed: SurveyResult;
let walkway: Walkway;
let footing: Footing;

beforeAll(async () => {
  const site = await readCommission();
  surveyed = surveyModel(site, FIRST_WALKER);
  walkway = (await Walkway.build(site, surveyed.survey, FIRST_WALKER))!;
  footing = surveyed.footing;
}, 120_000);

const EYE = 1.6;

function walk(points: readonly (readonly [number, number, number])[]): CompiledWalk {
  const body: Walk = {
    kind: 'walk',
    path: {
      closed: false,
      nodes: points.map(([x, y, z], i) => ({
        id: `00000000-0000-4000-8000-00000000000${i}`,
        x,
        y,
        z,
        kind: 'corner',
        radius: 0.4,
      })),
    },
    eyeHeight: EYE,
    pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
    gaze: { kind: 'ahead', distance: 2 },
    lens: DEFAULT_LENS,
  };
  return new CompiledWalk(body, footing);
}

describe('the observatory', () => {
  test('is the same every time and stays within its triangle budget', async () => {
    let triangles = 0;
    for (const entry of COMMISSION_MODELS) {
      expect(Buffer.from(await modelGlb(entry)).equals(Buffer.from(await modelGlb(entry)))).toBe(true);
      triangles += buildModel(entry).triangles;
    }
    expect(triangles).toBeLessThan(70_000);
    expect(triangles).toBeGreaterThan(10_000);
  });

  test('has the storeys it was drawn with', () => {
    const heights = surveyed.survey.storeys.map((s) => s.elevation);
    expect(heights).toHaveLength(3);
    expect(heights[0]).toBeCloseTo(0, 0);
    expect(heights[1]).toBeCloseTo(FLOOR, 2);
    expect(heights[2]).toBeCloseTo(DECK, 2);
  });

  test('its plan shows walls as closed outlines and the stair below the cut', () => {
    const ground = surveyed.survey.storeys[1]!;
    expect(ground.plan.cut.length).toBeGreaterThan(30);
    expect(ground.plan.below.length / 4).toBeGreaterThan(200);
    expect(ground.plan.glass.length / 4).toBeGreaterThanOrEqual(8);
  });
});

/** The rooms of the ground floor as they were drawn: a point inside, and the area between the faces of the walls. */
const [west, east, north, south] = [OUTER_WALL, EAST - OUTER_WALL, OUTER_WALL, SOUTH - OUTER_WALL];
const half = INNER_WALL / 2;
const ROOMS = {
  'reading room': { at: [4, 3], area: (HALL_WEST - half - west) * (WORKSHOP_NORTH - half - north) },
  workshop: { at: [4, 9], area: (HALL_WEST - half - west) * (south - WORKSHOP_NORTH - half) },
  hall: { at: [12, 6], area: (HALL_EAST - HALL_WEST - INNER_WALL) * (south - north) },
  café: { at: [20, 3], area: (east - HALL_EAST - half) * (GALLERY_NORTH - half - north) },
  'tide gallery': { at: [20, 9], area: (east - HALL_EAST - half) * (south - GALLERY_NORTH - half) },
} as const;

describe('the survey against what the generator knows', () => {
  test.each(Object.entries(ROOMS))('the %s is found, its area within 3 %%', (_, { at, area }) => {
    const { rooms } = surveyed.survey.storeys[1]!;
    expect(rooms).toHaveLength(Object.keys(ROOMS).length);
    const nearest = [...rooms].sort(
      (a, b) => Math.hypot(a.at[0] - at[0], a.at[2] - at[1]) - Math.hypot(b.at[0] - at[0], b.at[2] - at[1]),
    )[0]!;
    expect(Math.abs(nearest.area / area - 1)).toBeLessThan(0.03);
  });

  const inHall = [12, FLOOR, 5] as [number, number, number];

  test.each(Object.entries(ROOMS))('one can walk from the hall to the %s, through its door', (_, { at }) => {
    expect(walkway.way(inHall, freeNear(at[0], at[1]))).not.toBeNull();
  });

  test('one can walk in from outside, and up the stair to the deck', () => {
    expect(walkway.way([12, 0, -8], inHall)).not.toBeNull();
    const up = walkway.way(inHall, [20, DECK, 2.2])!;
    expect(up).not.toBeNull();
    expect(up.at(-1)![1]).toBeCloseTo(DECK, 0);
  });

  test('no way leads through a wall', () => {
    // From the reading room to the workshop there is a wall between: the way goes round by doors.
    const way = walkway.way(freeNear(4, 4.5), freeNear(4, 8))!;
    const length = way.slice(1).reduce((sum, p, i) => sum + Math.hypot(p[0] - way[i]![0], p[2] - way[i]![2]), 0);
    expect(length).toBeGreaterThan(6);
    for (const [x, y, z] of middles()) {
      if (Math.abs(y - FLOOR) > 0.3) continue;
      // The middle of the wall between reading room and workshop, away from doors.
      expect(Math.abs(z - WORKSHOP_NORTH) < half && x > west && x < HALL_WEST - 0.5).toBe(false);
    }
  });
});

/** Middles of the walkway's triangles. */
function middles(): [number, number, number][] {
  const soup = walkway.triangles();
  return Array.from({ length: soup.length / 9 }, (_, i) => {
    const at = (k: number) => (soup[9 * i + k]! + soup[9 * i + 3 + k]! + soup[9 * i + 6 + k]!) / 3;
    return [at(0), at(1), at(2)];
  });
}

/** A place on the walkway near a point of the ground floor: furniture may stand on the point itself. */
const freeNear = (x: number, z: number) =>
  middles()
    .filter(([, y]) => Math.abs(y - FLOOR) < 0.2)
    .sort((a, b) => Math.hypot(a[0] - x, a[2] - z) - Math.hypot(b[0] - x, b[2] - z))[0]!;

describe('walking the stair', () => {
  const x = STAIR.west + STAIR.width / 2;
  const up = () =>
    walk([
      [x, FLOOR, STAIR.foot + 1.2],
      [x, FLOOR, nosing(STAIR_RISERS).z - 1.2],
    ]);

  // The line through the nosings is how stairs are set out (ISO 3880-1 calls it the pitch line).
  test('the eye stays within half a riser of the line through the nosings plus eye height, and rises monotonically', () => {
    const compiled = up();
    const first = nosing(1);
    const last = nosing(STAIR_RISERS);
    let before = -Infinity;
    let worst = 0;
    for (let s = 0; s <= compiled.curve.length; s += 0.01) {
      const point = new Float64Array(2);
      compiled.curve.pointAt(s, point);
      const eye = tableAt(compiled.eyeLine, s);
      // A micrometre of slack: files keep 32-bit coordinates.
      expect(eye).toBeGreaterThanOrEqual(before - 1e-6);
      before = eye;
      const z = point[1]!;
      if (z <= first.z && z >= last.z) {
        const line = first.y + ((first.z - z) / GOING) * RISER;
        worst = Math.max(worst, Math.abs(eye - EYE - line));
      }
    }
    expect(worst).toBeLessThan(RISER / 2);
    expect(compiled.profile.gaps).toEqual([]);
    expect(tableAt(compiled.eyeLine, 0)).toBeCloseTo(FLOOR + EYE, 3);
    expect(tableAt(compiled.eyeLine, compiled.curve.length)).toBeCloseTo(DECK + EYE, 3);
  });

  test('coming down is the mirror image of going up', () => {
    const rising = up();
    const falling = walk([
      [x, DECK, nosing(STAIR_RISERS).z - 1.2],
      [x, FLOOR, STAIR.foot + 1.2],
    ]);
    for (let s = 0; s <= rising.curve.length; s += 0.1)
      expect(tableAt(falling.eyeLine, rising.curve.length - s)).toBeCloseTo(tableAt(rising.eyeLine, s), 2);
  });

  test('the entrance risers lift the eye onto the floor without a jump', () => {
    const compiled = walk([
      [12, 0, -6],
      [12, FLOOR, 3],
    ]);
    let before = tableAt(compiled.eyeLine, 0);
    for (let s = 0.05; s < compiled.curve.length; s += 0.05) {
      const eye = tableAt(compiled.eyeLine, s);
      expect(eye - before).toBeLessThan(0.05 * 0.75);
      expect(eye - before).toBeGreaterThan(-1e-6);
      before = eye;
    }
    expect(before).toBeCloseTo(FLOOR + EYE, 2);
  });
});

describe('checks of the way', () => {
  test('the boardwalk is walked on its boards, never on the beams under their joints', () => {
    const [, ...rest] = BOARDWALK_WAY.slice(0, -1);
    const compiled = walk(rest.map(([x, z]) => [x, BOARDWALK_HEIGHT, z]));
    expect(wayFindings(compiled)).toEqual([]);
    for (let s = 0; s <= compiled.curve.length; s += 0.05) {
      const [, y] = compiled.placeAt(s);
      // It climbs to its height over twelve metres, three of which lie before this walk.
      const from = s + Math.hypot(rest[0]![0] - BOARDWALK_WAY[0][0], rest[0]![1] - BOARDWALK_WAY[0][1]);
      expect(Math.abs(y - boardwalkHeight(from))).toBeLessThan(0.02);
    }
  });

  test('no walk of the commission goes through anything, or where there is no floor', () => {
    const walks = MOVES.filter(({ body }) => body.kind === 'walk');
    expect(walks.length).toBeGreaterThan(3);
    const met = walks.flatMap(({ name, body }) =>
      wayFindings(new CompiledWalk(body as Walk, footing)).map(
        ({ rule, from }) => `${name}: ${rule} at ${from.toFixed(1)}`,
      ),
    );
    expect(met).toEqual([]);
  });

  test('drawn on the ground plan, a walk over the stair goes up to the deck and on along it', () => {
    // As a hand presses them with the ground storey shown; the plan is cut 1.2 m above its floor.
    const places = [
      [9.9, 8.4],
      [9.9, 10.6],
      [8.68, 11.2],
      [8.68, 10.2],
      [8.68, 5.3],
      [8.7, 4.3],
      [12, 4.25],
    ] as const;
    const nodes: { x: number; y: number; z: number }[] = [];
    for (const [x, z] of places)
      nodes.push({ x, y: surfaceFor({ x, z }, nodes.at(-1), footing, FIRST_WALKER, EYE, FLOOR + 1.2)!, z });
    expect(nodes[0]!.y).toBeCloseTo(FLOOR, 2);
    // The last tread lies one riser below the deck.
    expect(nodes.slice(-3).map(({ y }) => y)).toEqual([DECK - RISER, DECK, DECK].map((y) => expect.closeTo(y, 2)));
  });

  test('two metres beside the entrance there is a wall, and a step that nobody takes', () => {
    const compiled = walk([
      [9.5, 0, -6],
      [9.5, FLOOR, 3],
    ]);
    const found = wayFindings(compiled);
    expect(found.map(({ rule }) => rule)).toEqual(['wall', 'step']);
    expect(found[1]!.size!).toBeGreaterThan(0.5);
    // And nowhere under the floor of the hall.
    expect(compiled.placeAt(compiled.curve.length)[1]).toBeCloseTo(FLOOR, 3);
  });
});

describe('sampling', () => {
  test('does not depend on the frame rate or the order of asking', () => {
    const compiled = walk([
      [12, FLOOR, 2],
      [12, FLOOR, 5],
      [14, FLOOR, 8.7],
      [18, FLOOR, 8.2],
    ]);
    const at24 = Array.from({ length: 24 }, (_, i) => compiled.sampleAt(i / 24));
    const at120 = Array.from({ length: 120 }, (_, i) => compiled.sampleAt((119 - i) / 120)).reverse();
    at24.forEach((sample, i) => expect(at120[i * 5]).toEqual(sample));
  });

  test('orientation never jumps', () => {
    const compiled = walk([
      [12, FLOOR, 2],
      [12, FLOOR, 5],
      [14, FLOOR, 8.7],
      [18, FLOOR, 8.2],
    ]);
    const times = Array.from({ length: 400 }, (_, i) => (i * compiled.duration) / 399);
    const out = new Float64Array(times.length * SAMPLE_STRIDE);
    compiled.fill(times, out);
    for (let i = 1; i < times.length; i += 1) {
      const dot = [3, 4, 5, 6].reduce(
        (sum, k) => sum + out[SAMPLE_STRIDE * i + k]! * out[SAMPLE_STRIDE * (i - 1) + k]!,
        0,
      );
      expect(dot).toBeGreaterThan(0.999);
    }
  });
});
