import { editReplySchema, type Edit, type EditReply } from '@eskovan/core/document';
import { request } from './api.ts';

/** Sends an edit to the server. @throws ApiError, OfflineError */
export const sendEdit = (edit: Edit): Promise<EditReply> =>
  request('POST', `/api/projects/${edit.projectId}/edits`, { schema: editReplySchema, body: edit });
