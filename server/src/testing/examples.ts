import {
  DOCUMENT_VERSION,
  type BodyOf,
  type Change,
  type ChildKind,
  type Edit,
  type EditReply,
  type FileRef,
  type Person,
  type Row,
  type Walk,
} from '@eskovan/core/document';
import type { Agent, Test } from 'supertest';

export const id = () => crypto.randomUUID();

export const walkBody: Walk = {
  kind: 'walk',
  path: { closed: false, nodes: [{ id: id(), x: 0, y: 0, z: 0, kind: 'smooth', radius: 0.5 }] },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: { focalLengthMm: 24, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] },
};

export const viewBody = (thumbnail: FileRef | null = null): BodyOf<'view'> => ({
  pose: { position: [1, 1.6, 2], orientation: [0, 0, 0, 1] },
  lens: walkBody.lens,
  thumbnail,
});

export const takeBody = (file: FileRef, source = id()): BodyOf<'take'> => ({
  kind: 'video',
  number: 0,
  source: { kind: 'move', id: source, name: 'Arrival' },
  width: 640,
  height: 360,
  subframes: 2,
  rate: { num: 24, den: 1 },
  frames: 48,
  file,
  poster: null,
  renderSeconds: 3,
});

export const PERSON: Person = { id: '00000000-0000-4000-8000-0000000000aa', name: 'Ines' };

export const editOf = (projectId: string, changes: Change[], more: Partial<Edit> = {}): Edit => ({
  id: id(),
  projectId,
  label: 'Something',
  by: PERSON,
  machine: false,
  version: DOCUMENT_VERSION,
  changes,
  given: [],
  ...more,
});

/** Sends an edit as a page would. */
export const send = (http: Agent, edit: Edit): Test => http.post(`/api/projects/${edit.projectId}/edits`).send(edit);

export async function makeProject(http: Agent, name = 'Ternholm'): Promise<string> {
  const projectId = id();
  await send(
    http,
    editOf(projectId, [{ op: 'make', kind: 'project', id: projectId, name, order: 0, body: {} }]),
  ).expect(200);
  return projectId;
}

/** Makes a row and returns it as the server keeps it. */
export async function makeRow<K extends ChildKind>(
  http: Agent,
  projectId: string,
  kind: K,
  body: BodyOf<K>,
  { name = 'One', order = 0, rowId = id() }: { name?: string; order?: number; rowId?: string } = {},
): Promise<Row<K>> {
  const make: Change = { op: 'make', kind, id: rowId, name, order, body };
  const reply = await send(http, editOf(projectId, [make])).expect(200);
  return (reply.body as EditReply).rows[0]!.row as Row<K>;
}

export async function keepFile(http: Agent, content: string, mediaType = 'image/webp'): Promise<FileRef> {
  const response = await http.post('/api/files').set('Content-Type', mediaType).send(Buffer.from(content)).expect(200);
  return response.body as FileRef;
}
