import type { BodyOf, FileRef } from '@eskovan/core/document';
import type { Agent } from 'supertest';

export const id = () => crypto.randomUUID();

export const walkBody: BodyOf<'move'> = {
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

export async function makeProject(http: Agent, name = 'Ternholm'): Promise<string> {
  const projectId = id();
  await http.put(`/api/projects/${projectId}`).send({ name, body: {} }).expect(200);
  return projectId;
}

export async function keepFile(http: Agent, content: string, mediaType = 'image/webp'): Promise<FileRef> {
  const response = await http.post('/api/files').set('Content-Type', mediaType).send(Buffer.from(content)).expect(200);
  return response.body as FileRef;
}
