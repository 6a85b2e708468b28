import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry } from 'three';
import { PLAIN_MATERIAL, type SceneModel, type ScenePart } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { RayTree } from './ray-tree.ts';
import { Sight } from './sight.ts';
import { randomFrom } from '../../random.fixture.ts';

const glass = { ...PLAIN_MATERIAL, opacity: 0.2 };
const model = (...parts: ScenePart[]): SceneModel => ({ parts, materials: [PLAIN_MATERIAL, glass], textures: [] });
const wall = (w: number, h: number, d: number, x: number, y: number, z: number, material = 0) =>
  partOf(new BoxGeometry(w, h, d).translate(x, y, z), material);
/** A place with the way it faces, as the sight wants it. */
const facing = (x: number, y: number, z: number, nx: number, ny: number, nz: number) =>
  Float32Array.of(x, y, z, nx, ny, nz);

function sightOf(site: SceneModel): Sight {
  const sight = new Sight(site);
  for (const _ of sight.filling());
  return sight;
}

describe('what stands in the way', () => {
  test('a wall hides, beside it one sees past; glass, rails and the land hide nothing', () => {
    const eye = [0, 1.6, 0] as const;
    const behind = facing(0, 1.6, -8, 0, 0, 1);
    expect(sightOf(model(wall(3, 3, 0.15, 0, 1.5, -4))).isFree(eye, behind, 0)).toBe(false);
    expect(sightOf(model(wall(3, 3, 0.15, 4, 1.5, -4))).isFree(eye, behind, 0)).toBe(true);
    expect(sightOf(model(wall(3, 3, 0.02, 0, 1.5, -4, 1))).isFree(eye, behind, 0)).toBe(true);
    expect(sightOf(model(wall(3, 0.05, 0.05, 0, 1.6, -4))).isFree(eye, behind, 0)).toBe(true);
    expect(sightOf(model(partOf(new PlaneGeometry(80, 80).rotateX(-Math.PI / 2)))).isFree(eye, behind, 0)).toBe(true);
    expect(sightOf(model()).isFree(eye, behind, 0)).toBe(true);
  });

  test('in a house of rooms it agrees with rays nine times of ten', () => {
    const parts = [
      wall(12, 0.2, 9, 0, -0.1, 0),
      wall(12, 0.2, 9, 0, 2.9, 0),
      wall(12, 2.8, 0.2, 0, 1.4, -4.4),
      wall(12, 2.8, 0.2, 0, 1.4, 4.4),
      wall(0.2, 2.8, 9, -5.9, 1.4, 0),
      wall(0.2, 2.8, 9, 5.9, 1.4, 0),
      wall(0.15, 2.8, 5, 0, 1.4, -1.9),
      wall(4.5, 2.8, 0.15, -3.6, 1.4, 0.6),
    ];
    const site = model(...parts);
    const soup = Float32Array.from(
      parts.flatMap(({ positions, indices }) => [...indices].flatMap((v) => [...positions.slice(3 * v, 3 * v + 3)])),
    );
    const [tree, sight, random] = [new RayTree(soup), sightOf(site), randomFrom(7)];
    const between = (from: number, to: number) => from + (to - from) * random();
    let [agreed, hidden] = [0, 0];
    const tries = 600;
    for (let i = 0; i < tries; i += 1) {
      const eye = [between(-5, 5), between(0.8, 2), between(-3.6, 3.6)] as const;
      const at = [between(-5, 5), between(0.5, 2.3), between(-3.6, 3.6)] as const;
      const [dx, dy, dz] = at.map((value, k) => value - eye[k]!) as [number, number, number];
      const far = Math.hypot(dx, dy, dz);
      const blocked = tree.hits(eye[0], eye[1], eye[2], dx / far, dy / far, dz / far, far);
      // A place in the air that faces the eye: what is asked is the way there.
      const free = sight.isFree(eye, facing(...at, -dx / far, -dy / far, -dz / far), 0);
      if (free !== blocked) agreed += 1;
      if (blocked) hidden += 1;
    }
    expect(hidden).toBeGreaterThan(0.2 * tries);
    expect(agreed / tries).toBeGreaterThan(0.9);
  });
});
