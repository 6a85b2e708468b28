import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, Matrix4, Mesh, MeshBasicMaterial, Quaternion, Raycaster, Vector3 } from 'three';
import { DEFAULT_LENS, type Bounds, type Vec3 } from '../document/index.ts';
import { standing } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { Footing } from '../survey/index.ts';
import { joinObjectCovers, objectCover, showsObject, unseenObjects } from './index.ts';

interface Box {
  centre: Vec3;
  size: Vec3;
}
const meshOf = ({ centre, size }: Box): Mesh => {
  const mesh = new Mesh(new BoxGeometry(...size), new MeshBasicMaterial());
  mesh.position.set(...centre);
  mesh.updateMatrixWorld(true);
  return mesh;
};
const boundsOf = ({ centre, size }: Box): Bounds => ({
  min: centre.map((value, k) => value - size[k]! / 2) as Vec3,
  max: centre.map((value, k) => value + size[k]! / 2) as Vec3,
});
const soupOf = (boxes: readonly Box[]): Float32Array =>
  Float32Array.from(
    boxes.flatMap((box) => {
      const mesh = meshOf(box);
      return [...mesh.geometry.toNonIndexed().applyMatrix4(mesh.matrixWorld).getAttribute('position').array];
    }),
  );
const siteOf = (boxes: readonly Box[]): Footing => new Footing(soupOf(boxes), soupOf(boxes));

const LOOKING = standing({ position: [0, 1.6, 0], orientation: [0, 0, 0, 1] }, DEFAULT_LENS);
const projection = new Projection(LOOKING.view, 16 / 9, LOOKING.position, LOOKING.orientation);

describe('whether an object is seen', () => {
  test('is what the raycaster of three.js says of 120 random sites, place by place', () => {
    const next = randomFrom(7);
    const between = (low: number, high: number) => low + (high - low) * next();
    const verdicts = { seen: 0, hidden: 0 };
    for (let site = 0; site < 120; site += 1) {
      const object: Box = {
        centre: [between(-5, 5), between(0.3, 3), between(-9, -4)],
        size: [between(0.3, 1.5), between(0.3, 1.5), between(0.3, 1.5)],
      };
      const others = Array.from({ length: 5 }, (): Box => ({
        centre: [between(-4, 4), between(0, 3), between(-3.2, -1)],
        size: [between(0.2, 2), between(0.2, 2), 0.2],
      }));
      const meshes = [object, ...others].map(meshOf);
      // Place by place: is the first thing on the way to it the object itself?
      const parts = [0.1, 0.5, 0.9];
      const { min, max } = boundsOf(object);
      const eye = new Vector3(...LOOKING.position);
      let seen = 0;
      for (const x of parts)
        for (const y of parts)
          for (const z of parts) {
            const place = [x, y, z].map((part, k) => min[k]! + (max[k]! - min[k]!) * part) as Vec3;
            const at = projection.project(place);
            if (Math.abs(at.x) > 1 || Math.abs(at.y) > 1) continue;
            const ray = new Raycaster(eye, new Vector3(...place).sub(eye).normalize());
            if (ray.intersectObjects(meshes)[0]?.object === meshes[0]) seen += 1;
          }
      const footing = siteOf([object, ...others]);
      const said = showsObject(projection, footing, { bounds: boundsOf(object) }, 0);
      expect(said).toBe(seen >= 27 / 4);
      verdicts[said ? 'seen' : 'hidden'] += 1;
    }
    // Both happen often, so that either answer could have been wrong.
    expect(verdicts.seen).toBeGreaterThan(20);
    expect(verdicts.hidden).toBeGreaterThan(20);
  });

  test('what is a speck in the picture is not; the same thing near is', () => {
    const far: Box = { centre: [0, 1.6, -80], size: [0.3, 0.3, 0.3] };
    const near: Box = { centre: [0, 1.6, -3], size: [0.3, 0.3, 0.3] };
    expect(showsObject(projection, siteOf([far]), { bounds: boundsOf(far) }, 0)).toBe(false);
    expect(showsObject(projection, siteOf([near]), { bounds: boundsOf(near) }, 0)).toBe(true);
  });

  test('one that moves is looked for where it is by then', () => {
    const cart: Box = { centre: [0, 1, -6], size: [1, 1, 1] };
    const wall: Box = { centre: [0, 1.5, -3], size: [3, 3, 0.2] };
    // It goes to the right by a metre a second, and turns as it goes.
    const placeAt = (time: number) =>
      new Matrix4()
        .makeTranslation(time, 0, 0)
        .multiply(new Matrix4().makeTranslation(0, 1, -6))
        .multiply(
          new Matrix4().makeRotationFromQuaternion(new Quaternion().setFromAxisAngle(new Vector3(0, 1, 0), time)),
        )
        .multiply(new Matrix4().makeTranslation(0, -1, 6));
    // The site has the cart where it rests: what is there at that time is not in the way of itself.
    const footing = siteOf([wall]);
    expect(showsObject(projection, footing, { bounds: boundsOf(cart), placeAt }, 0)).toBe(false);
    expect(showsObject(projection, footing, { bounds: boundsOf(cart), placeAt }, 3.6)).toBe(true);
  });

  test('its seconds and stretches add up over shots; one that is never seen is in the list', () => {
    const box: Box = { centre: [0, 1.6, -5], size: [1, 1, 1] };
    const behind: Box = { centre: [0, 1.6, 5], size: [1, 1, 1] };
    const objects = [
      { model: 'm', name: 'Scope', bounds: boundsOf(box) },
      { model: 'm', name: 'Bench', bounds: boundsOf(behind) },
    ];
    const cover = objectCover({ duration: 4, sampleAt: () => LOOKING }, siteOf([box, behind]), objects, 16 / 9);
    const joined = joinObjectCovers([
      { start: 0, cover },
      { start: 10, cover },
    ]);
    expect(joined.find(({ name }) => name === 'Scope')).toMatchObject({
      spans: [
        [0, 4],
        [10, 14],
      ],
    });
    expect(joined.find(({ name }) => name === 'Scope')!.seen).toBeCloseTo(8, 9);
    expect(joined.find(({ name }) => name === 'Bench')).toMatchObject({ seen: 0, spans: [] });
    // Where no shot has a camera, they are in the list all the same: they are in the site.
    const none = joinObjectCovers([
      { start: 0, cover: unseenObjects(objects) },
      { start: 0, cover: [] },
    ]);
    expect(none.map(({ name, seen }) => [name, seen])).toEqual([
      ['Scope', 0],
      ['Bench', 0],
    ]);
  });
});
