import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, TorusKnotGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { RayTree } from './ray-tree.ts';

const knot = new TorusKnotGeometry(2, 0.5, 120, 12).toNonIndexed();
const soup = Float32Array.from(knot.getAttribute('position').array);
const tree = new RayTree(soup);
const reference = new MeshBVH(new BufferGeometry().setAttribute('position', new BufferAttribute(soup.slice(), 3)));

describe('the nearest surface', () => {
  // Reference: three-mesh-bvh's raycastFirst on the same triangles and rays.
  test('agrees with the reference library: which, how far, and from which side', () => {
    // Off every edge of the knot: exactly on one, two libraries may take different faces, or none.
    const place = fc.integer({ min: -4000, max: 4000 }).map((n) => n / 1000 + 0.000_317);
    const turn = fc.integer({ min: 0, max: 6283 }).map((n) => n / 1000 + 0.000_271);
    const level = fc.integer({ min: -999, max: 998 }).map((n) => n / 1000 + 0.000_419);
    const out = { triangle: -1, distance: 0, back: false };
    const corner = (k: number) => new Vector3().fromArray(soup, 3 * k);
    let hits = 0;
    fc.assert(
      fc.property(place, place, place, turn, level, (x, y, z, a, dy) => {
        const r = Math.sqrt(1 - dy * dy);
        const direction = new Vector3(r * Math.cos(a), dy, r * Math.sin(a));
        const hit = reference.raycastFirst(new Ray(new Vector3(x, y, z), direction), DoubleSide);
        expect(tree.closest(x, y, z, direction.x, dy, direction.z, out)).toBe(hit !== null);
        if (!hit) return;
        hits += 1;
        expect(out.distance).toBeCloseTo(hit.distance, 4);
        const [p, q, s] = [0, 1, 2].map((k) => corner(3 * out.triangle + k)) as [Vector3, Vector3, Vector3];
        const normal = q.clone().sub(p).cross(s.clone().sub(p)).normalize();
        const facing = normal.dot(direction);
        if (Math.abs(facing) > 1e-6) expect(out.back).toBe(facing > 0);
        // The point lies in the plane of the triangle that is named.
        const at = new Vector3(x, y, z).addScaledVector(direction, out.distance);
        expect(Math.abs(at.sub(p).dot(normal))).toBeLessThan(1e-3);
      }),
      { numRuns: 1500 },
    );
    expect(hits).toBeGreaterThan(150);
  });
});

describe('is anything in the way', () => {
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
    const flat = new RayTree(square);
    expect(flat.hits(0, 2, 0, 0, -1, 0, Infinity)).toBe(true);
    expect(flat.hits(0, 2, 0, 0, -1, 0, 1.9)).toBe(false);
    expect(flat.hits(0, 2, 0, 0, 1, 0, Infinity)).toBe(false);
  });

  test('nothing is in the way of nothing', () => {
    expect(new RayTree(new Float32Array(0)).hits(0, 0, 0, 0, 1, 0, Infinity)).toBe(false);
  });
});
