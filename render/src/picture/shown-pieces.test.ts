import { expect, test } from '@jest/globals';
import { PLAIN_MATERIAL, type SceneModel } from '@eskovan/core/format';
import { ALL_LIT } from '@eskovan/core/document';
import { BoxGeometry, PerspectiveCamera, PlaneGeometry, type Mesh } from 'three';
import { buildScene } from '../scene/build-scene.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';
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

test('in passing it leaves out what is covered and what is too small; what rests leaves out what no pixel of it sees', async () => {
  const group = await buildScene(model, {
    look: 'natural',
    exposure: 0,
    light: { sun: [0, 1, 0], sky: 'clear', lamps: ALL_LIT },
  });
  for (const child of group.children) (child as Mesh).geometry.computeBoundingBox();
  const camera = new PerspectiveCamera(60, 16 / 9, 0.1, 200);
  camera.updateMatrixWorld(true);
  const pieces = new ShownPieces(group, model, () => true);
  const shownAt = (x: number, z: number) =>
    group.children.some((child) => {
      const { min, max } = (child as Mesh).geometry.boundingBox!;
      return child.visible && min.x <= x && max.x >= x && min.y > -5 && min.z <= z && max.z >= z;
    });
  const shown = () => [shownAt(0, -10), shownAt(0, -60), shownAt(56, -60), shownAt(24, -40)];
  pieces.inPassing(camera, 1, true);
  expect(shown()).toEqual([true, false, true, false]);
  // What is cut open hides nothing.
  pieces.inPassing(camera, 1, false);
  expect(shown()).toEqual([true, true, true, false]);
  pieces.inFull('resting', camera, { width: 256, height: 144 }, true);
  expect(shown()).toEqual([true, false, true, false]);
  pieces.inFull('resting', camera, { width: 256, height: 144 }, false);
  expect(shown()).toEqual([true, true, true, true]);
  // A camera on the other side, as one of a mirror's, sees what this one does not.
  const beyond = new PerspectiveCamera(60, 1, 0.1, 200);
  beyond.position.set(0, 0, -30);
  beyond.updateMatrixWorld(true);
  pieces.inPassing(beyond, 1, true);
  expect(shown()[1]).toBe(true);
});
