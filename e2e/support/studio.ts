import {
  projectBodySchema,
  type FileRef,
  type LitBody,
  type ProjectDocument,
  type SiteBody,
} from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { lightKey, ownLight, siteInput, siteKey, siteLight } from '@eskovan/core/site';
import { SURVEY_ALGORITHM } from '@eskovan/core/survey';
import { expect, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { editElsewhere } from './edits.ts';

/** The project as the database has it. */
export async function documentOf(request: APIRequestContext, projectId: string): Promise<ProjectDocument> {
  // A connection that was kept may be closed just as it is used again.
  const response = await request.get(`/api/projects/${projectId}/document`, { maxRetries: 2 });
  expect(response.ok()).toBe(true);
  return (await response.json()) as ProjectDocument;
}

/** Waits until there is something. What was found is what is handed on: asked again, it may be gone for something newer. */
async function there<T>(find: () => Promise<T | null>): Promise<T> {
  let found: T | null = null;
  await soon(async () => (found = await find()), { timeout: 60_000 }).not.toBeNull();
  return found!;
}

/** What was measured on the models of a project as they stand now, once the server keeps it. */
export async function siteOf(request: APIRequestContext, projectId: string): Promise<SiteBody> {
  const kept = async () => {
    const { project, model } = await documentOf(request, projectId);
    const key = siteKey(siteInput(project.body, model, READER)!, SURVEY_ALGORITHM);
    const response = await request.get(`/api/projects/${projectId}/sites/${key}`);
    return response.status() === 200 ? ((await response.json()) as SiteBody) : null;
  };
  return there(kept);
}

/** The models of a project in its own light, once all of it is there: a first light is none to compare by. */
export async function litScene(request: APIRequestContext, projectId: string): Promise<FileRef> {
  const whole = async () => {
    const { project, model } = await documentOf(request, projectId);
    const light = siteLight(project.body, ownLight(project.body));
    const key = lightKey(siteInput(project.body, model, READER)!, light, SURVEY_ALGORITHM);
    const response = await request.get(`/api/projects/${projectId}/lit/${key}`);
    const lit = response.status() === 200 ? ((await response.json()) as LitBody) : null;
    return lit && !lit.first ? lit.scene : null;
  };
  return there(whole);
}

/** The newest film or still of a project, once there are so many. */
export async function newestTake(request: APIRequestContext, projectId: string, count: number): Promise<Buffer> {
  const takes = async () => (await documentOf(request, projectId)).take;
  await soon(async () => (await takes()).length, { timeout: 150_000 }).toBe(count);
  const newest = (await takes()).reduce((one, other) => (other.created > one.created ? other : one));
  return (await request.get(`/api/files/${newest.body.file.sha256}`)).body();
}

export const projectIdOf = (page: Page): string => /project\/([0-9a-f-]{36})/.exec(page.url())![1]!;

/** Waits until the first of some elements is as wanted: looked at with every picture of the page, not once a second. */
const becomes = (page: Page, element: string, state: string, timeout: number) =>
  page.waitForFunction(([of, is]) => document.querySelector(of!)?.matches(is!), [element, state], { timeout });

/** Waits until everything made so far is confirmed by the server. */
export async function saved(page: Page): Promise<void> {
  await becomes(page, '[data-saved]', '[data-saved="saved"]', 20_000);
}

/** Makes a project on another machine. */
export async function projectElsewhere(request: APIRequestContext, name: string): Promise<string> {
  const id = crypto.randomUUID();
  await editElsewhere(request, id, 'New project', [
    { op: 'make', kind: 'project', id, name, order: 0, body: projectBodySchema.parse({}) },
  ]);
  return id;
}

/** Makes a project and opens its Model stage. */
export async function newProject(page: Page, name: string): Promise<string> {
  const id = await projectElsewhere(page.request, name);
  await page.goto(`/project/${id}/model`);
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  return id;
}

/** The same by hand, as everybody begins. */
export async function newProjectByHand(page: Page, name: string): Promise<string> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByRole('button', { name: 'Make project' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  return projectIdOf(page);
}

/** What {@link expect.poll} does, asking more often: most of what is waited for here comes within a second. */
export const soon = <T>(ask: () => T | Promise<T>, options: { timeout?: number; intervals?: number[] } = {}) =>
  expect.poll(ask, { intervals: [50, 100, 150, 200, 250, 300, 400, 500], ...options });

/** Brings a model in through the picker and waits until the project has it. */
export async function bringIn(page: Page, file: { name: string; bytes: Uint8Array }): Promise<void> {
  await page
    .getByLabel('Model file')
    .setInputFiles({ name: file.name, mimeType: 'model/gltf-binary', buffer: Buffer.from(file.bytes) });
  await expect(page.getByRole('heading', { name: 'Storeys' })).toBeVisible({ timeout: 90_000 });
  await saved(page);
}

/** Where a plan point is on the screen. */
export async function planPoint(page: Page, x: number, z: number): Promise<{ x: number; y: number }> {
  const point = await page.getByTestId('plan-drawing').evaluate(
    (svg: SVGSVGElement, [px, pz]) => {
      const group = svg.querySelector('g') as SVGGElement;
      const at = new DOMPoint(px, pz).matrixTransform(group.getScreenCTM()!);
      return { x: at.x, y: at.y };
    },
    [x, z] as const,
  );
  return point;
}

export async function pressPlan(page: Page, x: number, z: number): Promise<void> {
  const point = await planPoint(page, x, z);
  await page.mouse.click(point.x, point.y);
}

/** Brings a newer file of the only model, and waits until it is there. */
export async function newerFile(page: Page, name: string, bytes: Uint8Array): Promise<void> {
  await page.getByRole('link', { name: 'Model' }).click();
  await page
    .getByLabel('Newer file of this model')
    .setInputFiles({ name, mimeType: 'model/gltf-binary', buffer: Buffer.from(bytes) });
  await expect(page.getByRole('region', { name: 'Is this right?' }).getByText(name)).toBeVisible({ timeout: 30_000 });
  await saved(page);
}

/** Presses the picture at a place of its frame, 0…1 from the left and from above. */
export async function pressPicture(page: Page, u: number, v: number): Promise<void> {
  const frame = (await page.getByTestId('frame').boundingBox())!;
  await page.mouse.click(frame.x + u * frame.width, frame.y + v * frame.height);
}

/** Waits until the picture has come to rest and is sharp. */
export async function sharpPicture(page: Page): Promise<Locator> {
  const picture = page.getByTestId('picture-canvas').first();
  await becomes(page, '[data-testid="picture-canvas"]', '[data-sharp="true"]', 60_000);
  return picture;
}

/** Opens the Views stage and waits for its picture: the screen before, with a sharp one, stays until this one has come. */
export async function toViews(page: Page): Promise<Locator> {
  await page.getByRole('link', { name: 'Views' }).click();
  await expect(page.getByRole('complementary', { name: 'Views' })).toBeVisible();
  return sharpPicture(page);
}

/** Mean colour and spread of the picture inside the frame: is anything drawn, and has it changed? */
export async function pictureStatistics(page: Page): Promise<{ mean: number; spread: number }> {
  const bytes = await page.getByTestId('frame').first().screenshot();
  return page.evaluate(async (base64) => {
    const image = new Image();
    image.src = `data:image/png;base64,${base64}`;
    await image.decode();
    const canvas = new OffscreenCanvas(64, 36);
    const context = canvas.getContext('2d')!;
    context.drawImage(image, 0, 0, 64, 36);
    const { data } = context.getImageData(0, 0, 64, 36);
    const values = Array.from({ length: 64 * 36 }, (_, i) => (data[4 * i]! + data[4 * i + 1]! + data[4 * i + 2]!) / 3);
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const spread = Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length);
    return { mean, spread };
  }, bytes.toString('base64'));
}

/** Chooses in the fields of a form: what is chosen, by the label of its field. */
export async function choose(page: Page, options: Readonly<Record<string, RegExp>>): Promise<void> {
  for (const [label, option] of Object.entries(options)) {
    await page.getByRole('combobox', { name: label }).click();
    await page.getByRole('option', { name: option }).click();
  }
}
