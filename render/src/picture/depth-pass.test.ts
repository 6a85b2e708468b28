import { expect, test } from '@jest/globals';
import { ALL_LIT } from '@eskovan/core/document';
import { PLAIN_MATERIAL, type SceneModel } from '@eskovan/core/format';
import {
  BoxGeometry,
  DoubleSide,
  PerspectiveCamera,
  type Group,
  type Mesh,
  type Scene,
  type WebGLRenderer,
} from 'three';
import { buildScene } from '../scene/build-scene.ts';
import type { FinishUniforms } from '../scene/finish.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';
import { DepthPass } from './depth-pass.ts';

const box = (material: number, lit: boolean) => {
  const geometry = new BoxGeometry(1, 1, 1).translate(3 * material, 0, 0);
  const vertices = geometry.getAttribute('position').count;
  const light = lit ? { ambient: new Float32Array(3 * vertices), sun: new Float32Array(vertices) } : null;
  return partOf(geometry, { material, light });
};

/** A wall, a curtain of two sides, and a pane. */
const modelOf = (lit: boolean): SceneModel => ({
  parts: [0, 1, 2].map((material) => box(material, lit)),
  materials: [
    { ...PLAIN_MATERIAL, doubleSided: false },
    { ...PLAIN_MATERIAL, doubleSided: true },
    { ...PLAIN_MATERIAL, opacity: 0.2 },
  ],
  textures: [],
});

const finishedScene = (look: 'natural' | 'line', lit = true): Promise<Group> =>
  buildScene(modelOf(lit), {
    look,
    exposure: 0,
    light: { sun: [0, 1, 0], sky: 'clear', lamps: ALL_LIT },
    finish: {} as FinishUniforms,
  });

/** Where along x what is drawn ahead lies, and from how many sides it is seen. */
function drawnAhead(group: Group): (readonly [x: number, sides: number])[] {
  const drawn: (readonly [number, number])[] = [];
  const renderer = {
    render: (scene: Scene) =>
      scene.traverseVisible((object) => {
        const { geometry, material } = object as Mesh;
        if (!geometry) return;
        geometry.computeBoundingBox();
        drawn.push([geometry.boundingBox!.min.x + 0.5, (material as { side: number }).side === DoubleSide ? 2 : 1]);
      }),
  };
  new DepthPass(renderer as unknown as WebGLRenderer).ahead(group, new PerspectiveCamera());
  return drawn.sort((a, b) => a[0] - b[0]);
}

const asItIs = (group: Group) => (group.children as Mesh[]).map(({ material, visible }) => ({ material, visible }));

test('what is finished is drawn ahead, from the sides it is seen from; not glass, nor what is not there just now', async () => {
  const group = await finishedScene('natural');
  const before = asItIs(group);
  expect(drawnAhead(group)).toEqual([
    [0, 1],
    [3, 2],
  ]);
  expect(asItIs(group)).toEqual(before);
  for (const child of group.children) child.visible = false;
  expect(drawnAhead(group)).toEqual([]);
});

test('nothing is drawn ahead of surfaces under lines, which step back a little, nor of what has no light yet', async () => {
  expect(drawnAhead(await finishedScene('line'))).toEqual([]);
  expect(drawnAhead(await finishedScene('natural', false))).toEqual([]);
});
