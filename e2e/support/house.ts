import { CHILD_KINDS, changesBetween, type Change, type ProjectDocument, type Row } from '@eskovan/core/document';
import { expect, type Page } from '@playwright/test';
import { editElsewhere } from './edits.ts';
import { foreignModel } from './foreign-model.ts';
import { bringIn, documentOf, litScene, newProject } from './studio.ts';

/** Brings the house into a project that is open on the Model stage. */
export const bringHouseIn = async (page: Page): Promise<void> =>
  bringIn(page, { name: 'house.glb', bytes: await foreignModel() });

/** The project with the house, as it was when it was made. */
let made: ProjectDocument | null = null;

/**
 * A project with a house that nobody here drew, all of its light gathered, open on the Model stage, with nothing else in
 * it. It is made once and emptied for every story: none may change the model.
 */
export async function house(page: Page, name: string): Promise<string> {
  if (!made) {
    const id = await newProject(page, name);
    await bringHouseIn(page);
    await litScene(page.request, id);
    made = await documentOf(page.request, id);
    return id;
  }
  const { id } = made.project;
  const now = await documentOf(page.request, id);
  expect(now.model.map(({ body }) => body)).toEqual(made.model.map(({ body }) => body));
  // The picture of its light stays: it would be drawn again for every story.
  const body = { ...made.project.body, picture: now.project.body.picture };
  const changes: Change[] = [
    ...CHILD_KINDS.filter((kind) => kind !== 'model').flatMap((kind) =>
      (now[kind] as Row[]).map((row): Change => ({ op: 'remove', kind, id: row.id })),
    ),
    ...changesBetween('project', now.project, { ...made.project, name, body }),
  ];
  if (changes.length > 0) await editElsewhere(page.request, id, 'An empty house', changes);
  await page.goto(`/project/${id}/model`);
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Storeys' })).toBeVisible();
  return id;
}
