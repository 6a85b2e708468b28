import { describe, expect, test } from '@jest/globals';
import { PLAIN_MATERIAL, type SceneModel } from '@eskovan/core/format';
import { ALL_LIT } from '@eskovan/core/document';
import {
  BoxGeometry,
  PerspectiveCamera,
  PlaneGeometry,
  Raycaster,
  SphereGeometry,
  Vector2,
  Vector3,
  type Group,
  type Mesh,
} from 'three';
import { buildScene } from '../scene/build-scene.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';
import { randomFrom } from '../../../core/src/random.fixture.ts';
import { ShownPieces } from './shown-pieces.ts';

/** A large wall before the camera and a floor far below, both cut up for their light; a chest far behind it, another beside it, and a book beside that. */
const model: SceneModel = {
  parts: [
    partOf(new PlaneGeometry(16, 16, 30, 30).translate(0, 0, -10)),
    partOf(new PlaneGeometry(16, 16, 90, 90).rotateX(-Math.PI / 2).translate(0, -9, 0)),
    partOf(new BoxGeometry(2, 2, 2).translate(0, 0, -60)),
    partOf(new BoxGeometry(2, 2, 2).translate(56, 0, -60)),
    partOf(new BoxGeometry(0.05, 0.05, 0.05).translate(24, 0, -40)),
  ],
  materials: [PLAIN_MATERIAL],
  textures: [],
};

const size = { width: 256, height: 144 };

test('in passing it leaves out what is covered and what is too small; what rests leaves out what no pixel of it sees', async () => {
  const group = await buildScene(model, {
    look: 'natural',
    exposure: 0,
    light: { sun: [0, 1, 0], sky: 'clear', lamps: ALL_LIT },
  });
  const camera = new PerspectiveCamera(60, 16 / 9, 0.1, 200);
  camera.updateMatrixWorld(true);
  const pieces = new ShownPieces(group, model, () => true);
  /** Is anything of it drawn within a metre of a place, above the floor? */
  const shownAt = (x: number, z: number) =>
    drawnMiddles(group).some((at) => at.y > -5 && Math.max(Math.abs(at.x - x), Math.abs(at.z - z)) < 1.1);
  const shown = () => [shownAt(0, -10), shownAt(0, -60), shownAt(56, -60), shownAt(24, -40)];
  pieces.inPassing(camera, size, 1, true);
  expect(shown()).toEqual([true, false, true, false]);
  // What is cut open hides nothing.
  pieces.inPassing(camera, size, 1, false);
  expect(shown()).toEqual([true, true, true, false]);
  pieces.inFull('resting', camera, size, true);
  expect(shown()).toEqual([true, false, true, false]);
  pieces.inFull('resting', camera, size, false);
  expect(shown()).toEqual([true, true, true, true]);
  // A camera on the other side, as one of a mirror's, sees what this one does not.
  const beyond = new PerspectiveCamera(60, 1, 0.1, 200);
  beyond.position.set(0, 0, -30);
  beyond.updateMatrixWorld(true);
  pieces.inPassing(beyond, size, 1, true);
  expect(shown()[1]).toBe(true);
});

/** Middles of the triangles that are drawn. */
function drawnMiddles(group: Group): Vector3[] {
  return (group.children as Mesh[])
    .filter(({ visible }) => visible)
    .flatMap(({ geometry }) => {
      const { start, count } = geometry.drawRange;
      const indices = [...geometry.index!.array].slice(start, start + count);
      const corner = (vertex: number) => new Vector3().fromBufferAttribute(geometry.getAttribute('position'), vertex);
      return indices.flatMap((vertex, i) =>
        i % 3 === 0
          ? [
              corner(vertex)
                .add(corner(indices[i + 1]!))
                .add(corner(indices[i + 2]!))
                .divideScalar(3),
            ]
          : [],
      );
    });
}

describe('whatever a picture shows is drawn, of random worlds and from random places', () => {
  const next = randomFrom(11);
  const between = (a: number, b: number) => a + (b - a) * next();
  const world = (): SceneModel => ({
    parts: Array.from({ length: 60 }, (_, i) => {
      const shape =
        i % 3 === 0
          ? new BoxGeometry(between(1, 9), between(1, 6), between(0.1, 0.4), 12, 12, 2)
          : new SphereGeometry(between(0.3, 1.5), 24, 16);
      return partOf(shape.rotateY(between(0, 6.3)).translate(between(-20, 20), between(-1, 4), between(-20, 20)), {
        material: i % 2,
      });
    }),
    materials: [PLAIN_MATERIAL, { ...PLAIN_MATERIAL, doubleSided: false }],
    textures: [],
  });

  test.each([0, 1, 2])('world %i', async () => {
    const model = world();
    const light = { sun: [0, 1, 0] as [number, number, number], sky: 'clear' as const, lamps: ALL_LIT };
    const group = await buildScene(model, { look: 'natural', exposure: 0, light });
    const all = (await buildScene(model, { look: 'natural', exposure: 0, light })).children as Mesh[];
    const pieces = new ShownPieces(group, model, () => true);
    const total = drawnMiddles(group).length;
    let least = total;
    for (let round = 0; round < 4; round += 1) {
      const camera = new PerspectiveCamera(50, 16 / 9, 0.1, 200);
      camera.position.set(between(-15, 15), between(0, 3), between(-15, 15));
      camera.lookAt(between(-15, 15), between(0, 2), between(-15, 15));
      camera.updateMatrixWorld(true);
      const caster = new Raycaster();
      caster.near = 0.12;
      const rays = Array.from({ length: 40 }, () => ({
        x: Math.floor(between(0, 256)),
        y: Math.floor(between(0, 144)),
      }));
      const met = (meshes: Mesh[]) =>
        rays.map(({ x, y }) => {
          caster.setFromCamera(new Vector2((x + 0.5) / 128 - 1, (y + 0.5) / 72 - 1), camera);
          return caster.intersectObjects(meshes)[0]?.distance.toFixed(4);
        });
      const truth = met(all);
      for (const show of [
        () => pieces.inFull('whole', camera, size, true),
        () => pieces.inPassing(camera, size, Infinity, true),
        () => pieces.inFull('whole', camera, size, false),
      ]) {
        show();
        least = Math.min(least, drawnMiddles(group).length);
        expect(met((group.children as Mesh[]).filter(({ visible }) => visible))).toEqual(truth);
      }
    }
    // And it is worth it.
    expect(least).toBeLessThan(0.5 * total);
  });
});
