import { CHILD_KINDS, DOCUMENT_VERSION, KINDS } from '@eskovan/core/document';
import { randomFrom } from '../../core/src/random.fixture.ts';

export interface FuzzedRequest {
  method: string;
  path: string;
  headers: Record<string, string>;
  body?: string | Buffer;
}

/** Ids that are there, so that not everything is refused at the door. */
export interface Known {
  projects: readonly string[];
  rows: readonly string[];
  files: readonly string[];
  tokens: readonly string[];
}

const METHODS = ['GET', 'GET', 'GET', 'POST', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS'];
const TEXTS = [
  '',
  ' ',
  'x'.repeat(10_000),
  '\u0000',
  '\ud800',
  '🐦',
  'عنوان',
  "'; DROP TABLE move; --",
  '__proto__',
  '%00',
  '../../etc/passwd',
  'null',
  '[object Object]',
  '{}',
  '\r\nX: y',
];
const NUMBERS = [0, -0, 1, -1, 0.1, 1e308, -1e308, 1e-320, 2 ** 31, 2 ** 53, 2 ** 63, -(2 ** 31), Number.MAX_VALUE];
const TYPES = [
  'application/json',
  'image/webp',
  'model/gltf-binary',
  'text/html',
  'multipart/form-data',
  '',
  'application/json; charset=utf-16',
  'video/mp4',
];

/** Requests of every kind over all routes: mostly nearly right, so that they come far. */
export function* fuzz(seed: number, known: Known): Generator<FuzzedRequest> {
  const random = randomFrom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const chance = (part: number) => random() < part;
  const uuid = () =>
    '10000000-1000-4000-8000-100000000000'.replace(/[018]/g, (digit) =>
      (Number(digit) ^ (Math.floor(random() * 16) >> (Number(digit) / 4))).toString(16),
    );
  const text = () =>
    chance(0.5) ? pick(TEXTS) : String.fromCharCode(...Array.from({ length: 5 }, () => Math.floor(random() * 65536)));
  const number = () => (chance(0.6) ? pick(NUMBERS) : (random() - 0.5) * 10 ** Math.floor(random() * 20));
  const value = (depth = 0): unknown => {
    const kind = Math.floor(random() * (depth > 3 ? 5 : 7));
    if (kind === 0) return text();
    if (kind === 1) return number();
    if (kind === 2) return chance(0.5);
    if (kind === 3) return null;
    if (kind === 4) return pick([...known.rows, ...known.files]);
    if (kind === 5) return Array.from({ length: Math.floor(random() * 4) }, () => value(depth + 1));
    return Object.fromEntries(
      Array.from({ length: Math.floor(random() * 4) }, () => [
        chance(0.5)
          ? pick(['sha256', 'mediaType', 'size', 'kind', 'path', 'nodes', 'parts', 'thumbnail', '__proto__'])
          : text(),
        value(depth + 1),
      ]),
    );
  };
  const project = () => (chance(0.85) ? pick(known.projects) : chance(0.5) ? uuid() : text());
  const row = () => (chance(0.7) ? pick(known.rows) : chance(0.7) ? uuid() : text());
  const facet = (): unknown =>
    pick<unknown>([
      ['name'],
      ['order'],
      ['body', 'pace'],
      ['body', 'lens'],
      ['body', 'path'],
      ['body', 'parts', text()],
      ['body', 'number'],
      ['body', 'thumbnail'],
      ['body', text()],
      value(),
    ]);
  const change = (): unknown => {
    const of = { kind: chance(0.9) ? pick(KINDS) : text(), id: row() };
    const op = pick(['make', 'set', 'set', 'set', 'remove', 'restore', text()]);
    if (op === 'make') return { op, ...of, name: text(), order: number(), body: value() };
    if (op === 'set') return { op, ...of, facet: facet(), before: value(), after: value() };
    return { op, ...of };
  };
  const edit = (projectId: string): unknown => {
    const whole: Record<string, unknown> = {
      id: chance(0.9) ? uuid() : value(),
      projectId,
      label: chance(0.8) ? 'Fuzz' : value(),
      by: chance(0.9) ? { id: uuid(), name: 'Fuzz' } : value(),
      machine: chance(0.2),
      version: chance(0.9) ? DOCUMENT_VERSION : number(),
      changes: Array.from({ length: 1 + Math.floor(random() * 3) }, change),
      given: chance(0.2) ? [{ kind: pick(KINDS), id: row(), facet: facet(), value: value() }] : [],
    };
    if (chance(0.1)) delete whole[pick(Object.keys(whole))];
    if (chance(0.05)) whole[text()] = value();
    return whole;
  };
  const encode = (part: string) =>
    chance(0.95) ? encodeURIComponent(part.replace(/[\ud800-\udfff]/g, '?')) : part.replace(/[^\x21-\x7e]/g, '%');

  for (;;) {
    const projectId = project();
    const base = `/api/projects/${encode(projectId)}`;
    const path = pick<() => string>([
      () => `${base}/edits`,
      () => `${base}/edits`,
      () => `${base}/edits`,
      () =>
        `${base}/edits?row=${encode(row())}&facet=${encode(JSON.stringify(facet()) ?? '')}&most=${encode(String(number()))}`,
      () => base,
      () => `${base}/document`,
      () => `${base}/changes?after=${encode(String(chance(0.5) ? number() : text()))}`,
      () => `${base}/${pick(CHILD_KINDS)}s`,
      () => `${base}/${pick(CHILD_KINDS)}s/${encode(row())}`,
      () => `${base}/sites/${encode(chance(0.5) ? 'a'.repeat(28) : text())}`,
      () => `${base}/sites/${'b'.repeat(28)}/lease`,
      () => '/api/projects',
      () => '/api/files',
      () => `/api/files/${encode(chance(0.5) ? pick(known.files) : text())}`,
      () => `/api/review/${encode(chance(0.5) ? pick(known.tokens) : text())}`,
      () => `/api/review/${pick(known.tokens)}/files/${encode(chance(0.6) ? pick(known.files) : text())}`,
      () => '/api/live/here',
      () => '/api/live/people',
      () => '/api/settings',
      () => '/api/health',
      () => `/api/${encode(text())}`,
      () => `/${encode(text())}`,
    ])();
    const method = pick(METHODS);
    const type = chance(0.85) ? 'application/json' : pick(TYPES);
    const content = (): string | Buffer => {
      if (path.startsWith('/api/files')) return Buffer.from(text());
      if (chance(0.05)) return `{"half": ${text()}`;
      return JSON.stringify(path.includes('/edits') ? edit(projectId) : value()) ?? '';
    };
    yield {
      method,
      path,
      headers: {
        ...(type ? { 'content-type': type } : {}),
        ...(chance(0.1) ? { range: pick(['bytes=0-1', 'bytes=9999999-', 'bytes=5-2', 'lines=1', 'bytes=-']) } : {}),
        ...(chance(0.05) ? { 'if-none-match': 'W/"x"' } : {}),
        ...(chance(0.03) ? { 'content-encoding': 'gzip' } : {}),
      },
      ...(['GET', 'HEAD'].includes(method) ? {} : { body: content() }),
    };
  }
}

/** What no answer may hold: words of libraries and databases, paths of the machine. */
export const INSIDES =
  /sequelize|postgres|pg_|SQL|syntax error|violates|constraint|relation "|column "|Nest|express|zod|TypeError|ReferenceError|Cannot read|undefined is not|node_modules|\bat .*:\d+:\d+|ENOENT|EISDIR|\/tmp\//i;
