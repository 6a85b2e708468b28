import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, TorusKnotGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { RayTree, type RayHit } from './ray-tree.ts';

const knot = new TorusKnotGeometry(2, 0.5, 120, 12).toNonIndexed();
const soup = Float32Array.from(knot.getAttribute('position').array);
const tree = new RayTree(soup);
const quick = new RayTree(soup, { quick: true });
const reference = new MeshBVH(new BufferGeometry().setAttribute('position', new BufferAttribute(soup.slice(), 3)));

describe('the nearest surface', () => {
  // Reference: three-mesh-bvh's raycastFirst on the same triangles and rays.
  test.each([
    ['a careful tree', tree],
    ['one that was made in a hurry', quick],
  ])('agrees with the reference library: which, how far, and from which side: %s', (_, tree) => {
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

  // A sheet with a back of its own is two faces at one place: rays met either of them, as rounding had it.
  test('of two faces back to back is the one that shows its front', () => {
    const back = soup.slice();
    for (let o = 0; o < back.length; o += 9)
      back.set([...soup.subarray(o + 6, o + 9), ...soup.subarray(o + 3, o + 6), ...soup.subarray(o, o + 3)], o);
    const both = new Float32Array(2 * soup.length);
    both.set(soup);
    both.set(back, soup.length);
    const sheets = new RayTree(both, { sheets: new Uint32Array(both.length / 9).fill(1) });
    const [one, two] = [1, 2].map(() => ({ triangle: -1, distance: 0, back: false })) as [RayHit, RayHit];
    let backs = 0;
    for (let i = 0; i < 2000; i += 1) {
      const [a, b] = [0.0031 * i + 0.0003, 1.9 * Math.sin(2.4 * i)];
      const from = [4 * Math.cos(a), b, 4 * Math.sin(a)] as const;
      const way = [-Math.cos(a + 0.4 * b), -0.1 * b, -Math.sin(a + 0.4 * b)] as const;
      expect(sheets.closest(...from, ...way, two)).toBe(tree.closest(...from, ...way, one));
      if (one.triangle < 0) continue;
      expect(two.distance).toBeCloseTo(one.distance, 5);
      expect(two.back).toBe(false);
      backs += Number(one.back);
    }
    // From outside a closed knot shows its fronts: turned inside out every ray would meet a back.
    expect(backs).toBe(0);
    const inside = new RayTree(back);
    expect(inside.closest(4, 0.31, 0.02, -1, 0, 0, one)).toBe(true);
    expect(one.back).toBe(true);
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
