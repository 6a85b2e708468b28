import { describe, expect, test } from '@jest/globals';
import { SphereGeometry, PlaneGeometry, type BufferGeometry } from 'three';
import { randomFrom } from '../../../core/src/random.fixture.ts';
import { ClusterLevels, clustersOf, type Clusters } from './clusters.ts';

const next = randomFrom(5);
const positionsOf = (geometry: BufferGeometry) => geometry.getAttribute('position').array as Float32Array;
const indicesOf = (geometry: BufferGeometry) => Uint32Array.from(geometry.index!.array);
/** Triangles in any order, each as its three vertices. */
const triangles = (indices: ArrayLike<number>) =>
  Array.from({ length: indices.length / 3 }, (_, i) => [0, 1, 2].map((k) => indices[3 * i + k]).join()).sort();
const clusters = (of: Clusters) =>
  [...of.cells].map((cell, i) => ({
    cell,
    vertices: of.indices.subarray(of.starts[i], of.starts[i + 1]),
    box: of.boxes.subarray(6 * i, 6 * i + 6),
  }));
/** Sides of boxes on the whole. */
const meanSide = (boxes: Float32Array[]) =>
  boxes.reduce((sum, box) => sum + Math.hypot(box[3]! - box[0]!, box[4]! - box[1]!, box[5]! - box[2]!), 0) /
  boxes.length;

describe('triangles in clusters', () => {
  const sphere = new SphereGeometry(5, 48, 32).translate(1000, 3, -400);
  const [positions, indices] = [positionsOf(sphere), indicesOf(sphere)];

  test('are those of the cells, each once, as they turn, within its box', () => {
    const half = 3 * Math.floor(indices.length / 6);
    const cells = [
      { indices: indices.subarray(0, half), reach: 5 },
      { indices: indices.subarray(half), reach: Infinity },
    ];
    const made = clustersOf(cells, positions);
    expect(triangles(made.indices)).toEqual(triangles(indices));
    expect([...made.reaches]).toEqual([5, Infinity]);
    for (const { cell, vertices, box } of clusters(made)) {
      expect(vertices.length).toBeGreaterThan(0);
      expect(vertices.length).toBeLessThanOrEqual(48);
      const of = new Set(triangles(cells[cell]!.indices));
      for (const triangle of triangles(vertices)) expect(of.has(triangle)).toBe(true);
      for (const vertex of vertices)
        for (let k = 0; k < 3; k += 1) {
          expect(positions[3 * vertex + k]).toBeGreaterThanOrEqual(box[k]!);
          expect(positions[3 * vertex + k]).toBeLessThanOrEqual(box[3 + k]!);
        }
    }
    // Only the last cluster of each cell may have room.
    expect(made.cells).toHaveLength(cells.reduce((sum, cell) => sum + Math.ceil(cell.indices.length / 48), 0));
  });

  test('lie together, whatever order they come in', () => {
    const shuffled = triangles(indices)
      .map((one) => [next(), one.split(',').map(Number)] as const)
      .sort(([a], [b]) => a - b)
      .flatMap(([, one]) => one);
    const side = (order: ArrayLike<number>) => {
      const made = clustersOf([{ indices: Uint32Array.from(order), reach: Infinity }], positions);
      return meanSide(clusters(made).map(({ box }) => box));
    };
    // 95 clusters on 314 m²: a square of as much as each has, 1.8 m wide, has a diagonal of 2.6 m.
    expect(side(indices)).toBeLessThan(3.5);
    expect(side(shuffled)).toBeLessThan(3.5);
  });

  test('of one point, of one triangle and of nothing are no trouble', () => {
    const point = clustersOf([{ indices: new Uint32Array(60), reach: 1 }], Float32Array.of(7, 7, 7));
    expect([...point.boxes]).toEqual(Array.from({ length: 12 }, () => 7));
    expect(clustersOf([{ indices: Uint32Array.of(0, 1, 2), reach: 1 }], positions).cells).toHaveLength(1);
    const nothing = clustersOf([{ indices: new Uint32Array(0), reach: 1 }], positions);
    expect([...nothing.starts]).toEqual([0]);
  });

  test('levels that are alike are made once', () => {
    const plane = new PlaneGeometry(4, 4, 8, 8);
    const [whole, coarse] = [indicesOf(plane), Uint32Array.of(0, 8, 72)];
    const levels = new ClusterLevels([{ moving: coarse, resting: whole, whole, reach: 5 }], positionsOf(plane));
    expect(levels.of('whole')).toBe(levels.of('resting'));
    expect(levels.of('moving').indices).toHaveLength(3);
    expect(levels.of('whole').indices).toHaveLength(whole.length);
  });
});
