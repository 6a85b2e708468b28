import { DOCUMENT_VERSION } from '@eskovan/core/document';

const BY = { id: '00000000-0000-4000-8000-0000000000be', name: 'Bench' };

/** An edit as a page would send it. */
export const editOf = (projectId, label, changes) => ({
  id: crypto.randomUUID(),
  projectId,
  label,
  by: BY,
  machine: false,
  version: DOCUMENT_VERSION,
  changes,
  given: [],
});

/** Sends an edit. @throws Error where it is refused */
export async function sendEdit(address, edit) {
  const reply = await fetch(`${address}/api/projects/${edit.projectId}/edits`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(edit),
  });
  if (!reply.ok) throw new Error(`${edit.label}: ${reply.status} ${await reply.text()}`);
  return reply.json();
}

export const makeProject = (address, id, name) =>
  sendEdit(address, editOf(id, 'New project', [{ op: 'make', kind: 'project', id, name, order: 0, body: {} }]));
