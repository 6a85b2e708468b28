import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, TorusKnotGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { AnyHitTree } from './any-hit-tree.ts';

const knot = new TorusKnotGeometry(2, 0.5, 120, 12).toNonIndexed();
const soup = Float32Array.from(knot.getAttribute('position').array);
const tree = new AnyHitTree(soup);
const reference = new MeshBVH(new BufferGeometry().setAttribute('position', new BufferAttribute(soup.slice(), 3)));

describe('any-hit tree', () => {
  // Reference: three-mesh-bvh's raycastFirst on the same triangles and rays.
  test('agrees with the reference library on random rays', () => {
    const place = fc.double({ min: -4, max: 4, noNaN: true });
    const turn = fc.double({ min: 0, max: 2 * Math.PI, noNaN: true });
    const level = fc.double({ min: -1, max: 1, noNaN: true });
    let hits = 0;
    fc.assert(
      fc.property(
        place,
        place,
        place,
        turn,
        level,
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        (x, y, z, a, dy, far) => {
          const r = Math.sqrt(1 - dy * dy);
          const [dx, dz] = [r * Math.cos(a), r * Math.sin(a)];
          const hit = reference.raycastFirst(new Ray(new Vector3(x, y, z), new Vector3(dx, dy, dz)), DoubleSide);
          // Right at the limit the two may round differently.
          if (hit && Math.abs(hit.distance - far) < 1e-4) return;
          const expected = hit !== null && hit.distance < far;
          if (expected) hits += 1;
          expect(tree.hits(x, y, z, dx, dy, dz, far)).toBe(expected);
        },
      ),
      { numRuns: 3000 },
    );
    expect(hits).toBeGreaterThan(300);
  });

  test('rays along the axes meet boxes that touch them', () => {
    const square = Float32Array.from([-1, 0, -1, -1, 0, 1, 1, 0, 1, -1, 0, -1, 1, 0, 1, 1, 0, -1]);
    const flat = new AnyHitTree(square);
    expect(flat.hits(0, 2, 0, 0, -1, 0, Infinity)).toBe(true);
    expect(flat.hits(0, 2, 0, 0, -1, 0, 1.9)).toBe(false);
    expect(flat.hits(0, 2, 0, 0, 1, 0, Infinity)).toBe(false);
  });

  test('nothing is in the way of nothing', () => {
    expect(new AnyHitTree(new Float32Array(0)).hits(0, 0, 0, 0, 1, 0, Infinity)).toBe(false);
  });
});
