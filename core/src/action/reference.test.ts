import { expect, test } from '@jest/globals';
import { AnimationMixer, Vector3, type Group, type Mesh } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { Matrix4, Quaternion } from 'three';
import { packModel, readGlb, unpackModel } from '../format/index.ts';
import { assemble } from '../site/index.ts';
import { AS_IT_CAME } from '../document/index.ts';
import { movingGlb, type Channel, type MovingNode } from '../format/gltf/moving-glb.fixture.ts';
import { SiteMotion } from './index.ts';

const turned = (x: number, y: number, z: number, angle: number) =>
  new Quaternion().setFromAxisAngle(new Vector3(x, y, z).normalize(), angle).toArray();

/** A cart with wheels on a turned platform: joints on joints, and nodes between them that do not move. */
const NODES: readonly MovingNode[] = [
  {
    name: 'Platform',
    at: [3, 0, -2],
    turn: turned(0, 1, 0, 0.7),
    children: [
      {
        name: 'Cart',
        at: [1, 0.5, 0],
        size: [2, 2, 2],
        box: true,
        children: [
          {
            name: 'Axle',
            at: [0, -0.5, 0.4],
            turn: turned(1, 0, 1, 0.3),
            children: [{ name: 'Wheel', at: [0.2, 0, 0], size: [0.4, 0.4, 0.4], box: true }],
          },
        ],
      },
      { name: 'Post', at: [-2, 1, 0], box: true },
    ],
  },
];
const CHANNELS: readonly Channel[] = [
  { node: 'Cart', path: 'translation', times: [0, 1, 2.5], values: [1, 0.5, 0, 3, 0.5, 1, 4, 1.5, -1] },
  {
    node: 'Cart',
    path: 'rotation',
    times: [0.5, 2],
    values: [...turned(0, 1, 0, 0), ...turned(0, 1, 0.2, 2)],
  },
  { node: 'Axle', path: 'scale', between: 'STEP', times: [0, 1], values: [1, 1, 1, 1, 1.5, 0.5] },
  {
    node: 'Wheel',
    path: 'rotation',
    // The second half goes the long way round in numbers: a path of interpolation has to take the short one.
    times: [0, 1, 2],
    values: [...turned(1, 0, 0, 0), ...turned(1, 0, 0, 3), ...turned(1, 0, 0, 4).map((value) => -value)],
  },
  {
    node: 'Wheel',
    path: 'translation',
    between: 'CUBICSPLINE',
    times: [0, 2],
    values: [0, 0, 0, 0.2, 0, 0, 1, 2, 0, 0, -1, 0.5, 0.5, 0.3, 0, 0, 0, 0],
  },
];

/** The same file, played by three's own loader and mixer. */
async function reference(bytes: Uint8Array): Promise<{ scene: Group; play: (time: number) => void }> {
  const loader = new GLTFLoader();
  const gltf = await loader.parseAsync(Uint8Array.from(bytes).buffer, '');
  const mixer = new AnimationMixer(gltf.scene);
  mixer.clipAction(gltf.animations[0]!).play();
  return {
    scene: gltf.scene,
    play: (time) => {
      mixer.setTime(time);
      gltf.scene.updateMatrixWorld(true);
    },
  };
}

// Reference: three 0.187, GLTFLoader with AnimationMixer.
test('moved parts are where another player of the standard has them', async () => {
  const bytes = await movingGlb(NODES, { Drive: CHANNELS });
  const read = unpackModel(packModel(await readGlb(bytes, 'cart.glb')));
  const placement = { ...AS_IT_CAME, turn: 0.4, position: [10, 2, -5] as [number, number, number], metresPerUnit: 0.5 };
  const site = assemble([{ id: 'cart', model: read, placement }]);
  const motion = new SiteMotion(site, [
    { kind: 'recorded', model: 'cart', movement: 'Drive', start: 0, speed: 1, repeat: 'once' },
  ]);
  const { scene, play } = await reference(bytes);
  const places = motion.places();
  const put = new Matrix4()
    .makeTranslation(...placement.position)
    .multiply(new Matrix4().makeRotationY(placement.turn))
    .multiply(new Matrix4().makeScale(0.5, 0.5, 0.5));
  let furthest = 0;
  for (const time of [0, 0.3, 0.5, 1, 1.2, 1.7, 2, 2.2, 2.49]) {
    play(time);
    motion.place(time, places);
    for (const name of ['Cart', 'Wheel', 'Post']) {
      const mesh = scene.getObjectByName(name) as Mesh;
      const part = site.parts.find((one) => one.name.endsWith(name))!;
      const group = motion.groupOf(part);
      expect(group >= 0).toBe(name !== 'Post');
      const corner = mesh.geometry.getAttribute('position');
      for (let v = 0; v < corner.count; v += 1) {
        const wanted = new Vector3().fromBufferAttribute(corner, v).applyMatrix4(mesh.matrixWorld).applyMatrix4(put);
        const got = new Vector3().fromArray(part.positions, 3 * v);
        furthest = Math.max(furthest, got.distanceTo(wanted));
        if (group >= 0) got.applyMatrix4(places[group]!);
        expect(got.distanceTo(wanted)).toBeLessThan(2e-5);
      }
    }
  }
  // It did move.
  expect(furthest).toBeGreaterThan(1);
});
