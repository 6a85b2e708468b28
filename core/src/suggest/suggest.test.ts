import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS, type Vec3 } from '../document/index.ts';
import { forwardOf } from '../geometry/index.ts';
import { box } from '../move/floor-scenes.fixture.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { BUILDINGS, modelOfBuilding } from '../survey/buildings.fixture.ts';
import { OUTSIDE, surveyModel } from '../survey/index.ts';
import { modelOf } from '../survey/soup.fixture.ts';
import { SMALLEST_ROOM, suggestViews, type SuggestSite, type Thing } from './index.ts';

const WISH = { lens: { ...DEFAULT_LENS, focalLengthMm: 22 }, aspect: 16 / 9, eyeHeight: 1.6 };
const slope = 45;

interface Furnished extends SuggestSite {
  triangles: readonly number[];
  /** Boxes that nobody stands in. */
  furniture: Thing[];
}

/** A house of rooms in a row with doors between them, windows to one side, and furniture wherever it happens to stand. */
function furnished(seed: number): Furnished {
  const rnd = randomFrom(seed);
  const between = (a: number, b: number) => a + (b - a) * rnd();
  const rooms = Array.from({ length: 2 + (seed % 3) }, () => between(2.6, 6));
  const depth = between(3, 5.5);
  const [height, wall] = [2.7, 0.2];
  const length = rooms.reduce((sum, width) => sum + width + wall, -wall);
  const triangles = [
    ...box(-wall, length + wall, -0.3, 0, -wall, depth + wall),
    ...box(-wall, length + wall, height, height + 0.3, -wall, depth + wall),
    ...box(-wall, 0, 0, height, -wall, depth + wall),
    ...box(length, length + wall, 0, height, -wall, depth + wall),
    ...box(0, length, 0, height, depth, depth + wall),
    ...box(-30, length + 30, -0.6, -0.45, -30, depth + 30),
  ];
  const furniture: Thing[] = [];
  let x = 0;
  rooms.forEach((width, i) => {
    // A window in the wall at z = 0: sill and head.
    const [from, to] = [x + 0.3 * width, x + 0.75 * width];
    triangles.push(...box(x, from, 0, height, -wall, 0), ...box(to, x + width, 0, height, -wall, 0));
    triangles.push(...box(from, to, 0, 0.9, -wall, 0), ...box(from, to, 2.2, height, -wall, 0));
    if (i < rooms.length - 1) {
      const door = between(0.6, depth - 0.6);
      const [a, b] = [x + width, x + width + wall];
      triangles.push(...box(a, b, 0, height, 0, door - 0.45), ...box(a, b, 0, height, door + 0.45, depth));
      triangles.push(...box(a, b, 2.1, height, door - 0.45, door + 0.45));
      triangles.push(...box(a, b, 0, height, -wall, 0));
    }
    for (let k = 0; k < 1 + (seed % 2); k += 1) {
      const size = [between(0.5, 1.6), between(0.4, 1.1), between(0.5, 1.2)] as const;
      const [px, pz] = [x + between(0.1, width - size[0] - 0.1), between(0.1, depth - size[2] - 0.1)];
      const name = `Thing ${i + 1}.${k + 1}`;
      triangles.push(...box(px, px + size[0], 0, size[1], pz, pz + size[2]));
      furniture.push({ name, bounds: { min: [px, 0, pz], max: [px + size[0], size[1], pz + size[2]] } });
    }
    x += width + wall;
  });
  const { survey, footing } = surveyModel(modelOf(Float32Array.from(triangles)), { slope });
  return { survey, footing, bounds: survey.bounds, things: furniture, sun: [0.3, 0.6, -0.7], triangles, furniture };
}

/** Distance to the nearest triangle along a ray, by Möller & Trumbore over all of them: slow, and nothing of the trees. */
function brute(triangles: readonly number[], from: Vec3, way: Vec3): number {
  let nearest = Infinity;
  const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  const cross = (a: Vec3, b: Vec3): Vec3 => [
    a[1] * b[2] - a[2] * b[1],
    a[2] * b[0] - a[0] * b[2],
    a[0] * b[1] - a[1] * b[0],
  ];
  for (let o = 0; o < triangles.length; o += 9) {
    const corner = (k: number): Vec3 => [triangles[o + 3 * k]!, triangles[o + 3 * k + 1]!, triangles[o + 3 * k + 2]!];
    const [a, b, c] = [corner(0), corner(1), corner(2)];
    const [u, v] = [b, c].map((p) => p.map((value, k) => value - a[k]!) as Vec3) as [Vec3, Vec3];
    const p = cross(way, v);
    const det = dot(u, p);
    if (Math.abs(det) < 1e-12) continue;
    const t = from.map((value, k) => value - a[k]!) as Vec3;
    const s = dot(t, p) / det;
    const q = cross(t, u);
    const r = dot(way, q) / det;
    const distance = dot(v, q) / det;
    if (s >= 0 && r >= 0 && s + r <= 1 && distance > 1e-6) nearest = Math.min(nearest, distance);
  }
  return nearest;
}

describe('ten furnished houses', () => {
  const houses = Array.from({ length: 10 }, (_, i) => furnished(i + 1));

  test('every room over 6 m² has a view, and there are never more than ten', () => {
    for (const house of houses) {
      const views = suggestViews(house, WISH);
      expect(views.length).toBeLessThanOrEqual(10);
      const rooms = house.survey.storeys
        .filter(({ name }) => name !== OUTSIDE)
        .flatMap((storey) => storey.rooms.filter(({ area }) => area >= SMALLEST_ROOM).map(({ name }) => name));
      expect(rooms.length).toBeGreaterThan(1);
      expect(new Set(views.flatMap(({ room }) => room ?? []))).toEqual(new Set(rooms));
    }
  });

  test('nobody stands in furniture, looks at a wall nearer than 1.2 m, or stands off the floor', () => {
    for (const { triangles, furniture, ...site } of houses)
      for (const { camera, room } of suggestViews(site, WISH)) {
        const { position, orientation } = camera.pose;
        const [x, y, z] = position;
        if (room === null) continue;
        expect(y).toBeCloseTo(1.6, 5);
        for (const { bounds } of furniture)
          expect(
            x > bounds.min[0] - 0.2 && x < bounds.max[0] + 0.2 && z > bounds.min[2] - 0.2 && z < bounds.max[2] + 0.2,
          ).toBe(false);
        const [fx, fy, fz] = forwardOf(orientation);
        expect(Math.abs(fy)).toBeLessThan(1e-9);
        for (const turn of [-0.2, 0, 0.2]) {
          const [s, c] = [Math.sin(turn), Math.cos(turn)];
          expect(brute(triangles, position, [fx * c + fz * s, 0, fz * c - fx * s])).toBeGreaterThan(1.2);
        }
      }
  });

  test('what a view is about is in its picture, and the best come first', () => {
    let named = 0;
    for (const house of houses) {
      const views = suggestViews(house, WISH);
      for (const { camera, subject } of views) {
        const thing = house.things.find(({ name }) => name === subject);
        if (!thing) continue;
        named += 1;
        const centre = thing.bounds.min.map((value, k) => (value + thing.bounds.max[k]!) / 2) as Vec3;
        const { position, orientation } = camera.pose;
        const { x, y, depth } = new Projection(throughLens(camera.lens), WISH.aspect, position, orientation).project(
          centre,
        );
        expect(depth).toBeGreaterThan(0);
        expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThan(1);
      }
      const rooms = views.filter(({ room }) => room !== null);
      const firsts = rooms.filter((view, i) => rooms.findIndex(({ room }) => room === view.room) === i);
      firsts.slice(1).forEach(({ score }, i) => expect(score).toBeLessThanOrEqual(firsts[i]!.score));
    }
    expect(named).toBeGreaterThan(10);
  });

  test('no view is about a wall, a door or a pane, however large; a wardrobe may be what it is about', () => {
    let wardrobes = 0;
    for (const house of houses) {
      const room = (size: readonly [number, number, number], name: string): Thing[] =>
        house.furniture.map(({ bounds }) => ({
          name,
          bounds: {
            min: bounds.min,
            max: [bounds.min[0] + size[0], bounds.min[1] + size[1], bounds.min[2] + size[2]],
          },
        }));
      const plates = [...room([3, 2.6, 0.12], 'Partition'), ...room([0.05, 2.1, 0.9], 'Door')];
      const things = [...house.furniture, ...plates];
      for (const { subject } of suggestViews({ ...house, things }, WISH))
        expect(subject ?? '').not.toMatch(/Partition|Door/);
      const wardrobe = suggestViews({ ...house, things: room([1.2, 2, 0.6], 'Wardrobe') }, WISH);
      wardrobes += wardrobe.filter(({ subject }) => subject === 'Wardrobe').length;
    }
    expect(wardrobes).toBeGreaterThan(0);
  });

  test('from outside: two sides of the house, the sunny ones first, on the ground', () => {
    for (const house of houses) {
      const outside = suggestViews(house, WISH).filter(({ room }) => room === null);
      expect(outside.length).toBeGreaterThan(0);
      expect(outside[0]!.terms['two sides']).toBe(1);
      expect(outside[0]!.terms.light).toBeGreaterThan(0.5);
      expect(outside[0]!.camera.pose.position[1]).toBeCloseTo(-0.45 + 1.6, 5);
    }
  });
});

test('on buildings of galleries, half storeys, attics and towers every view stands free and every room has one', () => {
  const tried = BUILDINGS.filter((_, i) => i % 2 === 0);
  expect(tried).toHaveLength(10);
  for (const building of tried) {
    const { survey, footing } = surveyModel(modelOfBuilding(building), { slope });
    const site = { survey, footing, bounds: survey.bounds, things: [], sun: null };
    const views = suggestViews(site, WISH);
    const rooms = survey.storeys.flatMap(({ rooms, name }, storey) =>
      name === OUTSIDE ? [] : rooms.filter(({ area }) => area >= SMALLEST_ROOM).map((room) => `${storey} ${room.name}`),
    );
    const seen = new Set(views.filter(({ room }) => room !== null).map(({ room, storey }) => `${storey} ${room}`));
    expect([building.name, ...[...seen].sort()]).toEqual([building.name, ...[...new Set(rooms)].sort().slice(0, 10)]);
    for (const { camera, room } of views) {
      if (room === null) continue;
      const ahead = forwardOf(camera.pose.orientation) as Vec3;
      expect(brute(building.triangles, camera.pose.position, ahead)).toBeGreaterThan(1.2);
    }
  }
});

test('a thing that nobody stands beside is looked at from all round and a little above', () => {
  const triangles = box(-0.015, 0.015, 0, 0.03, -0.01, 0.01);
  const { survey, footing } = surveyModel(modelOf(Float32Array.from(triangles)), { slope });
  const views = suggestViews({ survey, footing, bounds: survey.bounds, things: [], sun: [0.5, 0.5, 0.5] }, WISH);
  expect(views.length).toBeGreaterThan(3);
  for (const { camera, room } of views) {
    expect(room).toBeNull();
    expect(camera.pose.position[1]).toBeGreaterThan(0.015);
    const { x, y } = new Projection(
      throughLens(camera.lens),
      WISH.aspect,
      camera.pose.position,
      camera.pose.orientation,
    ).project([0, 0.015, 0]);
    expect(Math.hypot(x, y)).toBeLessThan(0.2);
  }
});
