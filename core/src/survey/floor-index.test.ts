import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { BoxGeometry, DoubleSide, Mesh, MeshBasicMaterial, PlaneGeometry, Raycaster, Vector3 } from 'three';
import { FloorIndex, walkableTriangles } from './index.ts';
import { soupOf } from './soup.fixture.ts';

const join = (...soups: Float32Array[]) => Float32Array.from(soups.flatMap((soup) => [...soup]));
const floorAt = (y: number, size = 10) =>
  soupOf(new PlaneGeometry(size, size, 7, 5).rotateX(-Math.PI / 2).translate(0, y, 0));

describe('floor index', () => {
  test('finds the highest floor that is not above the ceiling, and the next surface above', () => {
    const index = new FloorIndex(walkableTriangles(join(floorAt(0), floorAt(3), floorAt(6))));
    expect(index.floorBelow(1, 1, 2)).toBeCloseTo(0, 6);
    expect(index.floorBelow(1, 1, 3.1)).toBeCloseTo(3, 6);
    expect(index.floorBelow(1, 1, Infinity)).toBeCloseTo(6, 6);
    expect(index.floorBelow(1, 1, -1)).toBe(-Infinity);
    expect(index.floorBelow(20, 1, 10)).toBe(-Infinity);
    expect(index.nextAbove(1, 1, 0.1)).toBeCloseTo(3, 6);
    expect(index.nextAbove(1, 1, 6.1)).toBe(Infinity);
  });

  test('has no holes along seams and at the far edge', () => {
    const index = new FloorIndex(walkableTriangles(floorAt(0)));
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 70 }), fc.integer({ min: 0, max: 50 }), (i, j) => {
        expect(index.floorBelow(-5 + i / 7, -5 + j / 5, 1)).toBeCloseTo(0, 5);
      }),
    );
  });

  test('leaves out walls, ceilings and steep slopes', () => {
    const box = soupOf(new BoxGeometry(2, 1, 2));
    expect(walkableTriangles(box)).toHaveLength(2 * 9);
    const steep = soupOf(new PlaneGeometry(4, 4).rotateX(-Math.PI / 2).rotateZ((50 * Math.PI) / 180));
    expect(walkableTriangles(steep)).toHaveLength(0);
    const ramp = soupOf(new PlaneGeometry(4, 4).rotateX(-Math.PI / 2).rotateZ((40 * Math.PI) / 180));
    expect(walkableTriangles(ramp)).toHaveLength(2 * 9);
  });

  test('an empty index answers that there is nothing', () => {
    expect(new FloorIndex(new Float32Array(0)).floorBelow(0, 0, 5)).toBe(-Infinity);
  });

  // Reference: the ray caster of three.js on the same triangles.
  test('agrees with a general ray caster on random terrain', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1.2, noNaN: true }), { minLength: 49, maxLength: 49 }),
        fc.double({ min: -3.9, max: 3.9, noNaN: true }),
        fc.double({ min: -3.9, max: 3.9, noNaN: true }),
        // Triangles narrow and wide, which are kept in cells of their own.
        fc.constantFrom(1, 3, 12),
        (heights, u, v, scale) => {
          const [x, z] = [u * scale, v * scale];
          const geometry = new PlaneGeometry(8 * scale, 8 * scale, 6, 6).rotateX(-Math.PI / 2);
          const position = geometry.getAttribute('position');
          heights.forEach((height, i) => position.setY(i, height));
          const index = new FloorIndex(walkableTriangles(soupOf(geometry)));
          const mesh = new Mesh(geometry, new MeshBasicMaterial({ side: DoubleSide }));
          const hit = new Raycaster(new Vector3(x, 50, z), new Vector3(0, -1, 0)).intersectObject(mesh)[0];
          const slope = hit?.face ? hit.face.normal.y : 0;
          const ours = index.floorBelow(x, z, 50);
          if (hit && slope > 0.71) expect(ours).toBeCloseTo(hit.point.y, 4);
        },
      ),
      { numRuns: 60 },
    );
  });
});
