import { beforeAll, describe, expect, test } from '@jest/globals';
import { readModel, type ReadModel } from '../index.ts';
import { writeIfc } from './ifc-house.fixture.ts';

let model: ReadModel;

beforeAll(async () => {
  const bytes = await writeIfc(
    [
      { name: 'Ground', elevation: 0 },
      { name: 'Upper', elevation: 2.8 },
    ],
    [
      { name: 'Floor', type: 'slab', from: [0, 0, -0.2], to: [8, 6, 0] },
      { name: 'South wall', type: 'wall', from: [0, 0, 0], to: [8, 0.3, 2.6] },
      { name: 'Front door', type: 'door', from: [3, 0.1, 0], to: [4, 0.2, 2.1] },
      { name: 'Upper floor', type: 'slab', from: [0, 0, 2.6], to: [8, 6, 2.8] },
    ],
    [
      {
        name: 'Parlour',
        outline: [
          [0.3, 0.3],
          [7.7, 0.3],
          [7.7, 5.7],
          [0.3, 5.7],
        ],
        elevation: 0,
      },
    ],
  );
  model = await readModel(bytes, 'house.ifc');
});

// Outside check: the file is written by web-ifc's own writer, in millimetres and Z up.
describe('IFC', () => {
  test('keeps storeys, and where elements belong', () => {
    expect(model.storeys).toEqual([
      { name: 'Ground', elevation: expect.closeTo(0, 6) },
      { name: 'Upper', elevation: expect.closeTo(2.8, 6) },
    ]);
    expect(model.parts.map(({ name }) => name).sort()).toEqual([
      'Ground / Door / Front door',
      'Ground / Slab / Floor',
      'Ground / Wall / South wall',
      'Upper / Slab / Upper floor',
    ]);
  });

  test('makes spaces rooms, with their outline and area', () => {
    expect(model.rooms).toHaveLength(1);
    const [room] = model.rooms!;
    expect(room).toMatchObject({ name: 'Parlour', elevation: expect.closeTo(0, 6) });
    expect(room!.area).toBeCloseTo(7.4 * 5.4, 3);
    const x = room!.outline.filter((_, i) => i % 2 === 0);
    expect([Math.min(...x), Math.max(...x)]).toEqual([expect.closeTo(0.3, 5), expect.closeTo(7.7, 5)]);
  });

  test('knows doors, and names of materials', () => {
    expect(model.parts.filter(({ role }) => role === 'door').map(({ name }) => name)).toEqual([
      'Ground / Door / Front door',
    ]);
    const wall = model.parts.find(({ name }) => name.endsWith('South wall'))!;
    expect(model.materials[wall.material]!.name).toBe('Brick');
  });

  test('comes in metres with Y up: the wall stands 2.6 m high at the south', () => {
    const { positions } = model.parts.find(({ name }) => name.endsWith('South wall'))!;
    const along = (axis: number) => {
      const values = positions.filter((_, i) => i % 3 === axis);
      return [Math.min(...values), Math.max(...values)];
    };
    expect(along(0)).toEqual([expect.closeTo(0, 4), expect.closeTo(8, 4)]);
    expect(along(1)).toEqual([expect.closeTo(0, 4), expect.closeTo(2.6, 4)]);
    // North on the drawing is up on the plan: y becomes −z.
    expect(along(2)).toEqual([expect.closeTo(-0.3, 4), expect.closeTo(0, 4)]);
  });

  test('a door that faces outward stays right side out', () => {
    for (const { positions: p, normals, indices } of model.parts)
      for (let k = 0; k < indices.length; k += 3) {
        const [a, b, c] = [3 * indices[k]!, 3 * indices[k + 1]!, 3 * indices[k + 2]!];
        const u = [0, 1, 2].map((i) => p[b + i]! - p[a + i]!) as [number, number, number];
        const v = [0, 1, 2].map((i) => p[c + i]! - p[a + i]!) as [number, number, number];
        const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
        expect(n[0] * normals[a]! + n[1] * normals[a + 1]! + n[2] * normals[a + 2]!).toBeGreaterThan(0);
      }
  });
});
