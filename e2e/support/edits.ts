import { DOCUMENT_VERSION, type Change, type Edit, type EditReply } from '@eskovan/core/document';
import { expect, type APIRequestContext } from '@playwright/test';

/** Another person, who works elsewhere. */
const OTTO = { id: '00000000-0000-4000-8000-0000000000bb', name: 'Otto' };

/** An edit as another person's page would send it. */
export const editOfOtto = (projectId: string, label: string, changes: Change[]): Edit => ({
  id: crypto.randomUUID(),
  projectId,
  label,
  by: OTTO,
  machine: false,
  version: DOCUMENT_VERSION,
  changes,
  given: [],
});

/** Does something as another person would, past the page that is looked at. */
export async function editElsewhere(
  request: APIRequestContext,
  projectId: string,
  label: string,
  changes: Change[],
): Promise<EditReply> {
  const data = editOfOtto(projectId, label, changes);
  const reply = await request.post(`/api/projects/${projectId}/edits`, { data });
  expect(reply.ok()).toBe(true);
  return (await reply.json()) as EditReply;
}
