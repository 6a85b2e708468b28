import { editReplySchema, type Edit, type EditReply } from '@eskovan/core/document';
import { request } from './api.ts';

/**
 * Sends an edit to the server, after it is shown: until then the page belongs to the hand that made it.
 * @throws ApiError, OfflineError
 */
export async function sendEdit(edit: Edit): Promise<EditReply> {
  await new Promise((resolve) => setTimeout(resolve));
  return request('POST', `/api/projects/${edit.projectId}/edits`, { schema: editReplySchema, body: edit });
}
