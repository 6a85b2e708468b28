import { describe, expect, test } from '@jest/globals';
import {
  BoxGeometry,
  DoubleSide,
  FrontSide,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  OrthographicCamera,
  PerspectiveCamera,
  PlaneGeometry,
  Raycaster,
  Triangle,
  Vector2,
  Vector3,
  type BufferGeometry,
  type Camera,
} from 'three';
import { Occlusion, type OccluderFaces } from './occlusion.ts';

/** Things in one world: each hides what is behind it, and may be hidden. */
function worldOf(things: readonly BufferGeometry[], twoSided = false) {
  const soups = things.map((thing) => thing.toNonIndexed().getAttribute('position').array as Float32Array);
  const soup = Float32Array.from(soups.flatMap((one) => [...one]));
  const count = soup.length / 9;
  const corner = (face: number, k: number) => new Vector3().fromArray(soup, 9 * face + 3 * k);
  const faces: OccluderFaces = {
    soup,
    twoSided: new Uint8Array(count).fill(twoSided ? 1 : 0),
    sizes: Float32Array.from({ length: count }, (_, i) =>
      Math.sqrt(new Triangle(corner(i, 0), corner(i, 1), corner(i, 2)).getArea()),
    ),
  };
  const boxes = things.map((thing) => {
    thing.computeBoundingBox();
    const { min, max } = thing.boundingBox!;
    return [...min, ...max];
  });
  const material = new MeshBasicMaterial({ side: twoSided ? DoubleSide : FrontSide });
  return { occlusion: new Occlusion(faces), boxes, meshes: things.map((thing) => new Mesh(thing, material)) };
}

function cameraAt(from: Vector3, to: Vector3, camera: Camera = new PerspectiveCamera(55, 16 / 9, 0.05, 200)): Camera {
  camera.position.copy(from);
  camera.lookAt(to);
  camera.updateMatrixWorld();
  return camera;
}
const clip = (camera: Camera) =>
  new Matrix4().multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse).elements;
const box = (size: readonly [number, number, number], at: readonly [number, number, number]) =>
  new BoxGeometry(...size).translate(...at);
const wall = (width: number, height: number, z: number) => new PlaneGeometry(width, height).translate(0, 0, z);
const [EYE, AHEAD] = [new Vector3(0, 0, 0), new Vector3(0, 0, -1)];

/** Which things show, one after the other. */
function shown(things: readonly BufferGeometry[], camera = cameraAt(EYE, AHEAD), twoSided = false): boolean[] {
  const { occlusion, boxes } = worldOf(things, twoSided);
  occlusion.look(clip(camera));
  return boxes.map((one) => occlusion.shows(one));
}

describe('what nearer faces cover', () => {
  const thing = box([1, 1, 1], [0, 0, -10]);

  test('is behind a wall that is larger than it, seen from the side that is drawn', () => {
    expect(shown([wall(4, 4, -5), thing])).toEqual([true, false]);
    // The back of a wall is not drawn, unless both sides are.
    const back = new PlaneGeometry(4, 4).rotateY(Math.PI).translate(0, 0, -5);
    expect(shown([back, thing])).toEqual([true, true]);
    expect(shown([back, thing], undefined, true)).toEqual([true, false]);
  });

  test('is not what looks out beside it, in front of it, or through a door', () => {
    expect(shown([wall(4, 4, -5), box([1, 1, 1], [5, 0, -10])])[1]).toBe(true);
    expect(shown([wall(4, 4, -5), box([1, 1, 1], [0, 0, -3])])[1]).toBe(true);
    const door = [wall(4, 4, -5).translate(-2.5, 0, 0), wall(4, 4, -5).translate(2.5, 0, 0)];
    expect(shown([...door, thing])[2]).toBe(true);
  });

  test('nor what hangs on the wall, flat or thick', () => {
    const picture = new PlaneGeometry(1, 1).translate(0, 0, -5);
    expect(shown([wall(4, 4, -5), picture, box([1, 1, 0.02], [0, 0, -4.99])])).toEqual([true, true, true]);
  });

  test('with as many places as a picture has pixels, a gap hides only what no pixel of it shows', () => {
    // Between two boards a gap of 6 mm at five metres: a pixel is 4 mm there, a step of the coarser grid 41.
    const boards = [wall(4, 4, -5).translate(-2.013, 0, 0), wall(4, 4, -5).translate(1.993, 0, 0)];
    const { occlusion, boxes } = worldOf([...boards, thing]);
    const camera = clip(cameraAt(EYE, AHEAD));
    occlusion.look(camera);
    expect(occlusion.shows(boxes[2]!)).toBe(false);
    for (const size of [
      { width: 1280, height: 720 },
      { width: 1920, height: 1080 },
    ]) {
      occlusion.look(camera, size);
      expect(boxes.map((one) => occlusion.shows(one))).toEqual([true, true, true]);
    }
    // The grid of the next picture is its own again.
    occlusion.look(camera);
    expect(occlusion.shows(boxes[2]!)).toBe(false);
  });

  test('is told by walls, floors and ceilings that go on behind the eye', () => {
    const floor = new PlaneGeometry(40, 40).rotateX(-Math.PI / 2).translate(0, -1.6, 0);
    expect(shown([floor, box([2, 2, 2], [0, -4, -8]), box([2, 1, 2], [0, -0.5, -8])])).toEqual([true, false, true]);
  });

  test('what is outside the picture is not in it; what stands around the eye is', () => {
    expect(shown([box([1, 1, 1], [30, 0, -10]), box([1, 1, 1], [0, 0, 10]), box([3, 3, 3], [0, 0, 0])])).toEqual([
      false,
      false,
      true,
    ]);
  });

  test('in parallel projection too', () => {
    const camera = cameraAt(EYE, AHEAD, new OrthographicCamera(-8, 8, 4.5, -4.5, 0.1, 100));
    // As large as the wall and behind it: a lens would see it smaller, here it just fits.
    expect(shown([wall(4, 4, -5), box([3.6, 3.6, 1], [0, 0, -50])], camera)).toEqual([true, false]);
    expect(shown([wall(4, 4, -5), box([5, 3.6, 1], [0, 0, -50])], camera)).toEqual([true, true]);
  });
});

test('whatever a ray of another library meets first is shown, in 60 random worlds; most of what none meets is not', () => {
  let seed = 7;
  const random = (from: number, to: number) => {
    seed = (seed * 48_271) % 2_147_483_647;
    return from + ((to - from) * seed) / 2_147_483_647;
  };
  let [met, hidden, unmet] = [0, 0, 0];
  for (let round = 0; round < 60; round += 1) {
    const twoSided = round % 2 === 1;
    const things = Array.from({ length: 60 }, (_, i) => {
      // Walls along both axes, and furniture.
      const long = random(1, 12);
      const size = (
        [
          [long, 3, 0.2],
          [0.2, 3, long],
          [0.6, 0.9, 0.6],
        ] as const
      )[i % 3]!;
      return box(size, [random(-15, 15), size[1] / 2 - 1.6, random(-15, 15)]);
    });
    const { occlusion, boxes, meshes } = worldOf(things, twoSided);
    const camera = cameraAt(
      new Vector3(random(-15, 15), random(-1, 1), random(-15, 15)),
      new Vector3(random(-15, 15), random(-1, 1), random(-15, 15)),
    );
    occlusion.look(clip(camera));
    const caster = new Raycaster();
    const firsts = new Set<number>();
    // At places of the grid that depth is known at: the middles of 128 fields across and 72 up.
    for (let y = 0; y < 72; y += 4)
      for (let x = 0; x < 128; x += 4) {
        caster.setFromCamera(new Vector2((x + 0.5) / 64 - 1, (y + 0.5) / 36 - 1), camera);
        caster.near = 0.08;
        const [first] = caster.intersectObjects(meshes);
        if (first) firsts.add(meshes.indexOf(first.object as Mesh<BufferGeometry, MeshBasicMaterial>));
      }
    boxes.forEach((one, i) => {
      const shows = occlusion.shows(one);
      if (firsts.has(i)) {
        met += 1;
        expect({ round, i, shows }).toEqual({ round, i, shows: true });
      } else {
        unmet += 1;
        if (!shows) hidden += 1;
      }
    });
  }
  expect(met).toBeGreaterThan(300);
  expect(hidden / unmet).toBeGreaterThan(0.85);
});
