import { decodeSrgb } from '@eskovan/core/colour';
import type { ActionBody, Orbit, ViewBody } from '@eskovan/core/document';
import { Document, NodeIO } from '@gltf-transform/core';
import { expect, test, type Page } from '@playwright/test';
import { BoxGeometry, SphereGeometry } from 'three';
import { editElsewhere } from '../support/edits.ts';
import { decoded } from '../support/film.ts';
import { nodeOf } from '../support/foreign-model.ts';
import { bringIn, choose, documentOf, newProject, saved, soon } from '../support/studio.ts';

/** A flat picture: everything lies near its middle row, and drawing it finely takes half the time. */
const WIDTH = 1280;
const HEIGHT = 400;
/** 50 mm at f/1.4, sharp at 2 m; the sensor is 36 mm wide. */
const LENS = { focalLengthMm: 50, fNumber: 1.4, focus: 2 };
const FOCAL_PIXELS = (LENS.focalLengthMm / 36) * WIDTH;
const DISTANCES = [0.8, 1.1, 1.4, 3.2, 4.5, 8];
/** A ball is so many pixels wide wherever it is. */
const BALL = 5;

/** A pointer that spins before the camera, metres and radians a second. */
const POINTER = { at: [0, -0.17, -3], arm: 0.12, tip: 0.006, rate: 11 } as const;

/** A lamp at the wall, and a mirror behind the first camera, which a second one looks into. */
const LAMP = { at: [-2, 2, -11.6], radius: 0.4 } as const;
const MIRROR = 4;
const MIRROR_LENS = { focalLengthMm: 24 };

/** The black wall, metres: as large as the mirror shows of it, and no larger, as its light takes its time. */
const WALL = [34, 12, 0.2] as const;

/** Balls of light before a black wall, side by side in the picture, each at a distance of its own; behind it a mirror. */
async function lights(): Promise<Uint8Array> {
  const document = new Document();
  document.createBuffer();
  const scene = document.createScene();
  const black = document.createMaterial('Black').setBaseColorFactor([0, 0, 0, 1]);
  const glow = document.createMaterial('Glow').setBaseColorFactor([0, 0, 0, 1]).setEmissiveFactor([1, 1, 1]);
  scene.addChild(
    nodeOf(document, 'Wall', new BoxGeometry(...WALL), black, { NORMAL: 'normal' }).setTranslation([0, 0, -12]),
  );
  DISTANCES.forEach((distance, i) => {
    const radius = ((BALL / 2) * distance) / FOCAL_PIXELS;
    const x = ((columnOf(i) - WIDTH / 2) * distance) / FOCAL_PIXELS;
    const ball = nodeOf(document, `Light ${i}`, new SphereGeometry(radius, 12, 8), glow, { NORMAL: 'normal' });
    scene.addChild(ball.setTranslation([x, 0, -distance]));
  });
  const silver = document
    .createMaterial('Silver')
    .setBaseColorFactor([1, 1, 1, 1])
    .setMetallicFactor(1)
    .setRoughnessFactor(0);
  scene.addChild(
    nodeOf(document, 'Mirror', new BoxGeometry(12, 8, 0.1), silver, { NORMAL: 'normal' }).setTranslation([
      0,
      0,
      MIRROR + 0.05,
    ]),
  );
  // A pointer: two tips of light about its middle.
  const pointer = document.createNode('Pointer').setTranslation([...POINTER.at]);
  for (const side of [-1, 1]) {
    const tip = nodeOf(document, `Tip ${side}`, new SphereGeometry(POINTER.tip, 16, 12), glow, { NORMAL: 'normal' });
    pointer.addChild(tip.setTranslation([side * POINTER.arm, 0, 0]));
  }
  scene.addChild(pointer);
  const lamp = nodeOf(document, 'Lamp', new SphereGeometry(LAMP.radius, 24, 16), glow, { NORMAL: 'normal' });
  scene.addChild(lamp.setTranslation([...LAMP.at]));
  return new NodeIO().writeBinary(document);
}
/** Camera that passes the balls, for a single frame: its shutter is open for half of it. */
const PASSING = { radius: 5, sweep: 0.04, duration: 0.1, light: 2 } as const;
/** The pointer’s turn, counter-clockwise as the camera sees it. */
const spinning = (model: string): ActionBody => {
  return { kind: 'spin', model, start: 0, part: 'Pointer', axis: [0, 0, 1], rate: POINTER.rate };
};
const columnOf = (i: number) => 120 + i * 208;

/** Display value to exposed light: the tone curve's straight part and what lies above it, undone by halving. */
function lightOf(display: number): number {
  const wanted = decodeSrgb(display);
  const compress = (x: number) => {
    if (x < 0.2) return x * (0.6 + 2 * x);
    if (x < 0.44) return x;
    const t = (x - 0.44) / 0.56;
    return 0.44 + (0.56 * t * (1 + t / 182.25)) / (1 + t);
  };
  let [low, high] = [0, 8];
  for (let k = 0; k < 40; k += 1) {
    const middle = (low + high) / 2;
    if (compress(middle) < wanted) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Width of the blot about a column, pixels: of an even disc, from its second moment. */
function blotWidth(pixels: Buffer, column: number): number {
  let [sum, sx, sy, sxx, syy] = [0, 0, 0, 0, 0];
  for (let y = HEIGHT / 2 - 90; y < HEIGHT / 2 + 90; y += 1)
    for (let x = column - 100; x < column + 100; x += 1) {
      const light = lightOf(pixels[y * WIDTH + x]! / 255);
      sum += light;
      sx += light * x;
      sy += light * y;
      sxx += light * x * x;
      syy += light * y * y;
    }
  const spread = (sxx + syy) / sum - (sx / sum) ** 2 - (sy / sum) ** 2;
  // A disc of width D spreads by D²/8 over both axes; the ball itself, and a pixel (1/6), are in it too.
  return Math.sqrt(Math.max(0, 8 * (spread - 1 / 6) - BALL ** 2));
}

/** Middle of what is light about a pixel. */
function middleOfLight(pixels: Buffer, [column, row]: readonly [number, number], reach: number): [number, number] {
  let [sum, sx, sy] = [0, 0, 0];
  for (let y = Math.round(row) - reach; y <= row + reach; y += 1)
    for (let x = Math.round(column) - reach; x <= column + reach; x += 1) {
      const light = lightOf(pixels[y * WIDTH + x]! / 255);
      sum += light;
      sx += light * x;
      sy += light * y;
    }
  return [sx / sum, sy / sum];
}

async function render(page: Page, projectId: string, name: string, quality: RegExp): Promise<Buffer> {
  await page.getByRole('link', { name: 'Renders' }).click();
  const before = (await documentOf(page.request, projectId)).take.length;
  await choose(page, { 'What to render': new RegExp(name), Size: /1280/, Quality: quality });
  const button = page.getByRole('button', { name: /^Render (still|film)/ });
  await expect(button).toBeEnabled({ timeout: 60_000 });
  await button.click();
  const take = async () => {
    const takes = (await documentOf(page.request, projectId)).take;
    return takes.length > before ? takes.sort((a, b) => b.body.number - a.body.number)[0] : undefined;
  };
  await soon(take, { timeout: 120_000 }).toBeTruthy();
  const png = await (await page.request.get(`/api/files/${(await take())!.body.file.sha256}`)).body();
  // A still, or the first frame of a film.
  return decoded(png, '-frames:v', '1', '-pix_fmt', 'gray', '-f', 'rawvideo');
}

test('what is out of focus is as blurred as the optics say, at six distances; a mirror shows things where they are; what passes is blurred as far as it goes', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const projectId = await newProject(page, 'Focus');
  await bringIn(page, { name: 'lights.glb', bytes: await lights() });
  const body: ViewBody = {
    pose: { position: [0, 0, 0], orientation: [0, 0, 0, 1] },
    lens: { ...LENS, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] },
    thumbnail: null,
  };
  const mirror: ViewBody = {
    pose: { position: [0, 0, 0], orientation: [0, 1, 0, 0] },
    lens: { ...MIRROR_LENS, sensor: body.lens.sensor, shift: [0, 0] },
    thumbnail: null,
  };
  const passing: Orbit = {
    kind: 'orbit',
    pivot: { kind: 'point', point: [0, 0, -PASSING.radius] },
    start: 0,
    sweep: PASSING.sweep,
    inclination: 0,
    distance: { by: 'radius', radius: PASSING.radius },
    duration: PASSING.duration,
    shape: 'constant',
    lens: { focalLengthMm: LENS.focalLengthMm, sensor: body.lens.sensor, shift: [0, 0] },
  };
  const { id, body: model } = (await documentOf(page.request, projectId)).model[0]!;
  // So strange a model is taken for one in feet: here it is said to be in metres, where it is.
  const placement = { ...model.placement, metresPerUnit: 1, position: [0, 0, 0] as [number, number, number] };
  const rate = (num: number) => ({ num, den: 1 });
  await editElsewhere(page.request, projectId, 'A view', [
    {
      ...{ op: 'set', kind: 'project', id: projectId, facet: ['body', 'rate'] },
      ...{ before: rate(25), after: rate(1 / PASSING.duration) },
    },
    {
      ...{ op: 'set', kind: 'project', id: projectId, facet: ['body', 'frame'] },
      ...{ before: { width: 16, height: 9 }, after: { width: 16, height: 5 } },
    },
    { op: 'set', kind: 'model', id, facet: ['body', 'placement'], before: model.placement, after: placement },
    { op: 'make', kind: 'view', id: crypto.randomUUID(), name: 'Lights', order: 1, body },
    { op: 'make', kind: 'view', id: crypto.randomUUID(), name: 'Mirror', order: 2, body: mirror },
    { op: 'make', kind: 'move', id: crypto.randomUUID(), name: 'Passing', order: 1, body: passing },
    { op: 'make', kind: 'move', id: crypto.randomUUID(), name: 'Standing', order: 2, body: { ...passing, sweep: 0 } },
    { op: 'make', kind: 'action', id: crypto.randomUUID(), name: 'Pointer', order: 1, body: spinning(id) },
  ]);
  await saved(page);
  await page.reload();
  const pixels = await render(page, projectId, 'View: Lights', /Fine/);
  const { focalLengthMm: f, fNumber, focus } = LENS;
  DISTANCES.forEach((distance, i) => {
    // Source: the thin lens of any handbook of optics: circle = (f / N) · f / (s − f) · |d − s| / d, on the sensor.
    const circle = ((f / fNumber) * f * Math.abs(distance - focus)) / ((focus * 1000 - f) * distance);
    const wanted = (circle * WIDTH) / 36;
    const seen = blotWidth(pixels, columnOf(i));
    expect(
      Math.abs(seen / wanted - 1),
      `${distance} m: ${seen.toFixed(1)} px, wanted ${wanted.toFixed(1)}`,
    ).toBeLessThan(0.05);
  });
  // A plane mirror: the lamp is seen as far behind it as it is before it. The camera looks along +z: its right is −x.
  const mirrored = await render(page, projectId, 'View: Mirror', /Good/);
  const focal = (MIRROR_LENS.focalLengthMm / 36) * WIDTH;
  const [x, y, z] = LAMP.at;
  const away = 2 * MIRROR - z;
  const wanted = [WIDTH / 2 - (focal * x) / away, HEIGHT / 2 - (focal * y) / away] as const;
  const reach = Math.ceil((focal * LAMP.radius) / away) + 12;
  const seen = middleOfLight(mirrored, wanted, reach);
  expect(Math.hypot(seen[0] - wanted[0], seen[1] - wanted[1])).toBeLessThan(2.5);
  // And there is light: the lamp’s middle is bright, beside it the mirror shows the black wall.
  const at = (column: number, row: number) => mirrored[Math.round(row) * WIDTH + Math.round(column)]!;
  expect(at(...wanted)).toBeGreaterThan(150);
  expect(at(wanted[0] - reach - 12, wanted[1])).toBeLessThan(0.5 * at(...wanted));
  await test.step('a camera that passes blurs what it passes, from where it is to where it comes to', async () => {
    // So many passes that the streak is one: with few of them it is a row of balls, and shorter by what is between.
    const passed = await render(page, projectId, 'Move: Passing', /Fine/);
    const open = 0.5 * PASSING.duration;
    const distance = DISTANCES[PASSING.light]!;
    const x = ((columnOf(PASSING.light) - WIDTH / 2) * distance) / FOCAL_PIXELS;
    // Worked by hand: the camera stands at an angle on the circle and looks at its middle.
    const columnAt = (time: number) => {
      const angle = (PASSING.sweep / PASSING.duration) * time;
      const [ex, ez] = [PASSING.radius * Math.sin(angle), PASSING.radius * (Math.cos(angle) - 1)];
      const [dx, dz] = [x - ex, -distance - ez];
      const [right, ahead] = [
        dx * Math.cos(angle) - dz * Math.sin(angle),
        -dx * Math.sin(angle) - dz * Math.cos(angle),
      ];
      return WIDTH / 2 + (FOCAL_PIXELS * right) / ahead;
    };
    const [begins, ends] = [columnAt(0), columnAt(open)];
    const wanted = Math.abs(ends - begins);
    expect(wanted).toBeGreaterThan(30);
    const middle = Math.round((begins + ends) / 2);
    let [sum, sx, sxx] = [0, 0, 0];
    for (let row = HEIGHT / 2 - 12; row < HEIGHT / 2 + 12; row += 1)
      for (let column = middle - 90; column < middle + 90; column += 1) {
        const light = lightOf(passed[row * WIDTH + column]! / 255);
        sum += light;
        sx += light * column;
        sxx += light * column * column;
      }
    // An even streak of a length spreads by its square over twelve; the ball’s own width and a pixel are in it, too.
    const spread = sxx / sum - (sx / sum) ** 2;
    const seenLength = Math.sqrt(12 * (spread - BALL ** 2 / 16 - 1 / 12));
    expect(Math.abs(seenLength - wanted), `${seenLength.toFixed(2)} px, wanted ${wanted.toFixed(2)}`).toBeLessThan(1);
    expect(Math.abs(sx / sum - (begins + ends) / 2)).toBeLessThan(1);
  });

  await test.step('a pointer that spins is smeared along its arc, as far as it turns while the shutter is open', async () => {
    const smeared = await render(page, projectId, 'Move: Standing', /Fine/);
    const [, y, z] = POINTER.at;
    const pixelsPerMetre = FOCAL_PIXELS / -z;
    const turned = POINTER.rate * 0.5 * PASSING.duration;
    // Worked by hand: the mean and the spread of an even arc, from the tip’s place to where it comes to.
    const [reach, middleRow] = [POINTER.arm * pixelsPerMetre, HEIGHT / 2 - y * pixelsPerMetre];
    const mean = [
      WIDTH / 2 + (reach * Math.sin(turned)) / turned,
      middleRow - (reach * (1 - Math.cos(turned))) / turned,
    ] as const;
    let [sum, sx, sy] = [0, 0, 0];
    const along: { column: number; row: number; light: number }[] = [];
    for (let row = Math.round(middleRow) - 80; row < middleRow + 80; row += 1)
      for (let column = WIDTH / 2; column < WIDTH / 2 + 100; column += 1) {
        const light = lightOf(smeared[row * WIDTH + column]! / 255);
        sum += light;
        sx += light * column;
        sy += light * row;
        along.push({ column, row, light });
      }
    expect(Math.hypot(sx / sum - mean[0], sy / sum - mean[1])).toBeLessThan(1.5);
    // Angles about its middle spread as an even arc does: by a twelfth of the square of what it turned.
    const angleOf = (at: { column: number; row: number }) =>
      Math.atan2(middleRow - (at.row + 0.5), at.column + 0.5 - WIDTH / 2);
    const first = along.reduce((total, at) => total + at.light * angleOf(at), 0) / sum;
    const spread = along.reduce((total, at) => total + at.light * (angleOf(at) - first) ** 2, 0) / sum;
    const own = (POINTER.tip / POINTER.arm) ** 2 / 4;
    const seen = Math.sqrt(12 * (spread - own)) * reach;
    expect(
      Math.abs(seen - turned * reach),
      `${seen.toFixed(2)} px, wanted ${(turned * reach).toFixed(2)}`,
    ).toBeLessThan(1);
  });
});
