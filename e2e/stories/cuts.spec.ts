import type { BodyOf, Vec3 } from '@eskovan/core/document';
import { orientationOf } from '@eskovan/core/geometry';
import { expect, test } from '@playwright/test';
import { shiftOf } from '../support/block-matching.ts';
import { editElsewhere } from '../support/edits.ts';
import { greyFrames } from '../support/film.ts';
import { grainyYard } from '../support/noise-room.ts';
import { bringIn, choose, litScene, newestTake, newProject } from '../support/studio.ts';

const SHOTS = 11;
/** Frames of a shot. */
const LONG = 3;
const [WIDTH, HEIGHT, RATE] = [640, 360, 25];

/** A camera that goes and turns steadily for a second, caught in the middle of it. */
function going(i: number): BodyOf<'move'> {
  // Fast and slow ones in turn, all of them another way.
  const fast = i % 2 === 0 ? 1 : 0.45;
  const way = (n: number) => fast * Math.sin(2.4 * i + n);
  const velocity: Vec3 = [2.2 * way(0), 0.5 * way(1), 2.6 * way(2)];
  const [pan, tilt] = [0.4 * way(3), 0.16 * way(4)];
  const at = (time: number) => ({
    id: crypto.randomUUID(),
    time,
    hold: 0,
    position: velocity.map((v, k) => [0, 1.8, -5][k]! + v * (time - 0.5)) as Vec3,
    orientation: orientationOf({ pan: pan * (time - 0.5), tilt: tilt * (time - 0.5), roll: 0 }),
    span: 'smooth' as const,
  });
  return {
    kind: 'travel',
    poses: [at(0), at(1)],
    turning: 'level',
    ends: 'running',
    gaze: { kind: 'kept' },
    lens: { focalLengthMm: 24, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] },
  };
}

test('what is said of ten cuts is what the frames of the film do', async ({ page }) => {
  test.setTimeout(180_000);
  const projectId = await newProject(page, 'Cuts');
  await bringIn(page, { name: 'yard.glb', bytes: await grainyYard(page) });
  await litScene(page.request, projectId);
  const ids = Array.from({ length: SHOTS }, () => crypto.randomUUID());
  const reel = crypto.randomUUID();
  await editElsewhere(page.request, projectId, 'Eleven moves and their reel', [
    ...ids.map((id, i) => ({
      op: 'make' as const,
      kind: 'move' as const,
      id,
      name: `Move ${i}`,
      order: i,
      body: going(i),
    })),
    { op: 'make', kind: 'reel', id: reel, name: 'Cuts', order: 0, body: {} },
    ...ids.map((move, i) => ({
      op: 'make' as const,
      kind: 'shot' as const,
      id: crypto.randomUUID(),
      name: `Shot ${i}`,
      order: i,
      body: { reel, use: { kind: 'move' as const, move, from: 0.4, to: 0.4 + LONG / RATE } },
    })),
  ]);
  await page.goto(`/project/${projectId}/reel`);

  const told: [number, number][] = [];
  await test.step('each join says how fast its pictures are before and after', async () => {
    for (let i = 1; i < SHOTS; i += 1) {
      await page.getByRole('button', { name: new RegExp(`^Join ${i} to ${i + 1}, cut`) }).click({ timeout: 30_000 });
      await expect(page.getByRole('heading', { name: `Join ${i} → ${i + 1}` })).toBeVisible();
      const flow = page.getByTestId('join-flow');
      await expect(flow).toBeVisible({ timeout: 30_000 });
      told.push(
        await flow.evaluate(({ dataset }: HTMLElement) => [Number(dataset['before']), Number(dataset['after'])]),
      );
    }
  });

  await test.step('within 5 % of what block matching finds in the frames that the film was rendered of', async () => {
    await page.getByRole('button', { name: 'Render reel' }).first().click();
    await choose(page, { Size: /640/, Quality: /Draft/, 'Shutter open': /An instant/ });
    await page.getByRole('button', { name: 'Render', exact: true }).click();
    const film = await newestTake(page.request, projectId, 1);
    const frames = greyFrames(film, { width: WIDTH, height: HEIGHT });
    expect(frames).toHaveLength(SHOTS * LONG);
    const off: number[] = [];
    told.forEach(([before, after], i) => {
      const cut = (i + 1) * LONG;
      for (const [said, first] of [
        [before, cut - 2],
        [after, cut],
      ] as const) {
        const reach = Math.ceil((2 * said * WIDTH) / RATE) + 3;
        const seen = shiftOf(frames[first]!, frames[first + 1]!, WIDTH, HEIGHT, Math.min(40, reach)) * RATE;
        off.push(said / seen - 1);
      }
    });
    test.info().annotations.push({ type: 'off, %', description: off.map((one) => (100 * one).toFixed(1)).join(' ') });
    expect(Math.max(...off.map(Math.abs))).toBeLessThan(0.05);
    // Fast and slow are far apart: what is always the same would not pass.
    const speeds = told.flat();
    expect(Math.max(...speeds)).toBeGreaterThan(2 * Math.min(...speeds));
  });
});
