import { expect, test } from '@jest/globals';
import { DEFAULT_LENS, type Bounds } from '@eskovan/core/document';
import { standing } from '@eskovan/core/move';
import { PerspectiveCamera, Vector3 } from 'three';
import { aimCamera } from './aim-camera.ts';

const size = { width: 640, height: 360 };
const bounds: Bounds = { min: [-20, 0, -20], max: [20, 5, 20] };
const lens = { ...DEFAULT_LENS, focalLengthMm: 50, focus: 8, fNumber: 2 };
const sample = standing({ position: [1, 1.6, 2], orientation: [0, Math.SQRT1_2, 0, Math.SQRT1_2] }, lens);

function aimed(
  pixelShift: [number, number] = [0, 0],
  opening: [number, number] = [0, 0],
  of: Partial<typeof lens> = {},
) {
  const camera = new PerspectiveCamera();
  camera.matrixAutoUpdate = false;
  aimCamera(
    camera,
    { ...sample, view: { ...sample.view, ...of } as typeof sample.view },
    size,
    bounds,
    pixelShift,
    opening,
  );
  // It looks west: a metre to its right is a metre to the north.
  return (ahead: number, right: number, up: number) => {
    const seen = new Vector3(1 - ahead, 1.6 + up, 2 - right).project(camera);
    return [((seen.x + 1) / 2) * size.width, ((1 - seen.y) / 2) * size.height] as const;
  };
}

test('places are seen where a pinhole shows them', () => {
  const pixelOf = aimed();
  const focal = (50 / lens.sensor.widthMm) * size.width;
  const [x, y] = pixelOf(8, 0.5, 0.25);
  expect(x).toBeCloseTo(size.width / 2 + (focal * 0.5) / 8, 6);
  expect(y).toBeCloseTo(size.height / 2 - (focal * 0.25) / 8, 6);
});

test('a pass that is shifted by parts of a pixel is shifted by those, near and far', () => {
  const [still, shifted] = [aimed(), aimed([0.25, -0.4])];
  for (const ahead of [3, 8, 15]) {
    const [a, b] = [still(ahead, 0.3, 0.2), shifted(ahead, 0.3, 0.2)];
    expect(a[0] - b[0]).toBeCloseTo(0.25, 6);
    expect(b[1] - a[1]).toBeCloseTo(-0.4, 6);
  }
});

test('seen through the rim of the lens what is in focus stays; what is not is off by the circle of confusion', () => {
  const [middle, rim] = [aimed(), aimed([0, 0], [1, 0])];
  const off = (ahead: number) => middle(ahead, 0, 0)[0] - rim(ahead, 0, 0)[0];
  expect(off(8)).toBeCloseTo(0, 6);
  // Half of the circle, by similar triangles: the opening's radius f / 2N, seen at a distance instead of in focus.
  const focal = (50 / lens.sensor.widthMm) * size.width;
  for (const ahead of [3, 15]) expect(off(ahead)).toBeCloseTo(focal * (0.05 / 4) * (1 / ahead - 1 / 8), 6);
  // Closed down by two stops it is half of that.
  const closed = aimed([0, 0], [1, 0], { fNumber: 4 });
  expect(middle(3, 0, 0)[0] - closed(3, 0, 0)[0]).toBeCloseTo(off(3) / 2, 6);
});
