import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DoubleSide, Mesh, MeshBasicMaterial, Raycaster, TorusKnotGeometry, Vector3 } from 'three';
import { pickNearest } from './index.ts';

const geometry = new TorusKnotGeometry(2, 0.5, 60, 8);
const part = {
  positions: Float32Array.from(geometry.getAttribute('position').array),
  indices: Uint32Array.from(geometry.index!.array),
};
const mesh = new Mesh(geometry, new MeshBasicMaterial({ side: DoubleSide }));

describe('picking', () => {
  // Reference: the ray caster of three.js.
  test('finds the same point as the reference library', () => {
    const place = fc.double({ min: -4, max: 4, noNaN: true });
    fc.assert(
      fc.property(
        place,
        place,
        place,
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (x, y, z, a, dy) => {
          const r = Math.sqrt(1 - dy * dy);
          const direction: [number, number, number] = [r * Math.cos(a), dy, r * Math.sin(a)];
          const [hit] = new Raycaster(new Vector3(x, y, z), new Vector3(...direction), 1e-4).intersectObject(mesh);
          const ours = pickNearest([part], [x, y, z], direction);
          if (!hit) expect(ours).toBeNull();
          else ours!.point.forEach((value, k) => expect(value).toBeCloseTo(hit.point.getComponent(k), 4));
        },
      ),
      { numRuns: 300 },
    );
  });

  test('of what lies in one plane the uppermost is meant, whatever comes first', () => {
    const sheet = (layer: number) => ({
      positions: Float32Array.from([-1, 0, -1, -1, 0, 1, 1, 0, 0]),
      indices: Uint32Array.from([0, 1, 2]),
      layer,
    });
    const pressed = (layers: number[]) => pickNearest(layers.map(sheet), [0, 2, 0], [0, -1, 0])!.part;
    expect(pressed([0, 1, 0])).toBe(1);
    expect(pressed([2, 0, 1])).toBe(0);
    expect(pressed([0, 2, 1])).toBe(1);
  });
});
