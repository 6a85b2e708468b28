import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { liveEventSchema, type LiveEvent, type Presence } from '@eskovan/core/document';
import { createApp } from '../app.ts';
import { openDoors, type Doors } from '../doors.ts';
import { editOf, id, makeProject, makeRow, PERSON, send, walkBody } from '../testing/examples.ts';
import { startTestApp, type TestApp } from '../testing/test-app.ts';
import { Attendance, ABSENT_MS } from './attendance.ts';

let studio: TestApp;
/** Another server process on the same database. */
let other: Awaited<ReturnType<typeof createApp>>;
let otherDoors: Doors;
beforeAll(async () => {
  studio = await startTestApp();
  other = await createApp(studio.config, { quiet: true });
  Object.assign(studio.config, { reviewPort: 0 });
  otherDoors = await openDoors(other);
});
afterAll(async () => {
  const closed = otherDoors.close();
  await other.close();
  await closed;
  await studio.stop();
});

interface Stream {
  /** The next event that fits. */
  until(fits: (event: LiveEvent) => boolean): Promise<LiveEvent>;
  lastId(): string;
  close(): Promise<void>;
}

async function open(port: number, query = '', headers: Record<string, string> = {}): Promise<Stream> {
  const reply = await fetch(`http://localhost:${port}/api/live${query}`, { headers });
  const reader = reply.body!.getReader();
  const decoder = new TextDecoder();
  let text = '';
  let last = '';
  return {
    async until(fits) {
      for (;;) {
        const end = text.indexOf('\n\n');
        if (end < 0) {
          const { value, done } = await reader.read();
          if (done) throw new Error('the stream ended');
          text += decoder.decode(value, { stream: true });
          continue;
        }
        const block = text.slice(0, end).trim();
        text = text.slice(end + 2);
        const field = (name: string) => new RegExp(`^${name}: (.*)$`, 'm').exec(block)?.[1];
        last = field('id') ?? last;
        const data = field('data');
        if (data === undefined) continue;
        const event = liveEventSchema.parse(JSON.parse(data));
        if (fits(event)) return event;
      }
    },
    lastId: () => last,
    close: () => reader.cancel(),
  };
}

const isEdit = (label: string) => (event: LiveEvent) => event.kind === 'edit' && event.entry.label === label;
const note = (project: string, label: string, walk: string, before: string) =>
  send(
    studio.http,
    editOf(project, [{ op: 'set', kind: 'move', id: walk, facet: ['name'], before, after: label }], { label }),
  ).expect(200);

describe('the stream', () => {
  test('tells every page what was done, also through another server process', async () => {
    const project = await makeProject(studio.http);
    const walk = await makeRow(studio.http, project, 'move', walkBody, { name: 'Walk' });
    const [here, there] = [await open(studio.port), await open(otherDoors.studio.port)];
    await note(project, 'Told', walk.id, 'Walk');
    for (const stream of [here, there]) {
      const event = await stream.until(isEdit('Told'));
      expect(event).toMatchObject({
        entry: { projectId: project, by: PERSON, touched: [{ kind: 'move', id: walk.id, revision: 2 }] },
      });
      await stream.close();
    }
  });

  test('resumes after the last id: nothing that was done meanwhile is missed, in order', async () => {
    const project = await makeProject(studio.http);
    const walk = await makeRow(studio.http, project, 'move', walkBody, { name: '0' });
    const first = await open(studio.port);
    await note(project, '1', walk.id, '0');
    await first.until(isEdit('1'));
    const lastId = first.lastId();
    await first.close();
    for (let n = 2; n <= 5; n += 1) await note(project, `${n}`, walk.id, `${n - 1}`);
    const again = await open(otherDoors.studio.port, '', { 'Last-Event-ID': lastId });
    for (let n = 2; n <= 5; n += 1) await again.until((event) => isEdit(`${n}`)(event));
    await again.close();
    // One that was away for longer than is told one by one hears where things are.
    const late = await open(studio.port, '?after=0');
    await late.until((event) => event.kind === 'hello');
    await late.close();
  });

  test('an edit that many wait for is numbered in the order of its commit', async () => {
    const projects = await Promise.all(Array.from({ length: 6 }, () => makeProject(studio.http)));
    const stream = await open(studio.port);
    await stream.until((event) => event.kind === 'hello');
    await Promise.all(projects.map((project) => makeRow(studio.http, project, 'move', walkBody)));
    const seen: number[] = [];
    while (seen.length < projects.length) {
      const event = await stream.until(({ kind }) => kind === 'edit');
      if (event.kind === 'edit') seen.push(event.entry.seq);
    }
    expect(seen).toEqual([...seen].sort((a, b) => a - b));
    expect(new Set(seen).size).toBe(projects.length);
    await stream.close();
  });
});

describe('who is here', () => {
  const page = (change: Partial<Presence> = {}): Presence => ({
    tab: id(),
    person: PERSON,
    projectId: id(),
    stage: 'Moves',
    row: null,
    turn: 0,
    ...change,
  });

  test('is told to everybody, and that somebody left', async () => {
    const stream = await open(otherDoors.studio.port);
    const presence = page();
    const holds = (stage: string | null) => (event: LiveEvent) =>
      event.kind === 'here' && (event.here.find(({ tab }) => tab === presence.tab)?.stage ?? null) === stage;
    await studio.http.post('/api/live/here').send(presence).expect(204);
    await stream.until(holds('Moves'));
    await studio.http
      .post('/api/live/here')
      .send({ ...presence, stage: 'Views' })
      .expect(204);
    await stream.until(holds('Views'));
    await studio.http
      .post('/api/live/here')
      .send({ ...presence, projectId: null })
      .expect(204);
    await stream.until(holds(null));
    await stream.close();
    await studio.http.post('/api/live/here').send({ tab: 'x' }).expect(422);
  });

  test('lapses where nothing is heard', () => {
    const attendance = new Attendance();
    const presence = page();
    expect(attendance.note(presence, 0)).toBe(true);
    expect(attendance.note(presence, 1000)).toBe(false);
    expect(attendance.now(ABSENT_MS)).toEqual([presence]);
    expect(attendance.now(ABSENT_MS + 1001)).toEqual([]);
  });

  test('is what a page said last, in whatever order it arrives', () => {
    const attendance = new Attendance();
    const renamed = page({ turn: 3 });
    // A name that changes leaves and comes back in one moment, and the leaving was on a slower connection.
    expect(attendance.note(renamed, 0)).toBe(true);
    expect(attendance.note({ ...renamed, projectId: null, turn: 2 }, 5)).toBe(false);
    expect(attendance.now(5)).toEqual([renamed]);
    // One that closed does not come back by what it said before.
    expect(attendance.note({ ...renamed, projectId: null, turn: 5 }, 10)).toBe(true);
    expect(attendance.note({ ...renamed, turn: 4 }, 15)).toBe(false);
    expect(attendance.now(15)).toEqual([]);
  });
});
