import { rowSchema, type Row } from '@eskovan/core/document';
import { request } from './api.ts';
import type { OutboxDoor } from './outbox.ts';

/** Turns a queued edit into the request that saves it. */
export const serverDoor: OutboxDoor = {
  send: ({ projectId, change }, revision) => {
    const base =
      change.kind === 'project'
        ? `/api/projects/${change.id}`
        : `/api/projects/${projectId}/${change.kind}s/${change.id}`;
    const schema = rowSchema(change.kind);
    const reply = (): Promise<Row> => {
      switch (change.op) {
        case 'create':
          return request('PUT', base, {
            schema,
            body: { name: change.name, order: change.order, body: change.body },
          }) as Promise<Row>;
        case 'change':
          return request('PATCH', base, { schema, body: { revision, ...change.values } }) as Promise<Row>;
        case 'delete':
          return request('DELETE', `${base}?revision=${revision}`, { schema }) as Promise<Row>;
        case 'restore':
          return request('POST', `${base}/restore`, { schema, body: { revision } }) as Promise<Row>;
      }
    };
    return reply();
  },
};
