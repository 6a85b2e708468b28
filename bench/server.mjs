// How long the server takes for many people at once.
import { Agent, request } from 'node:http';
import pg from 'pg';
import { editOf, makeProject, sendEdit } from './lib/edits.mjs';

const PEOPLE = 50;
/** Each asks once a second for so long, and then without pause for so long, seconds. */
const CALM_SECONDS = 12;
const HASTE_SECONDS = 5;

const LENS = { focalLengthMm: 24, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] };
const view = (n) => ({ pose: { position: [n, 1.6, 2], orientation: [0, 0, 0, 1] }, lens: LENS, thumbnail: null });
const walk = (n) => ({
  kind: 'walk',
  path: {
    closed: false,
    nodes: Array.from({ length: 10 }, (_, i) => ({
      id: crypto.randomUUID(),
      x: n + i * 1.37,
      y: 0,
      z: i * 0.731,
      kind: 'smooth',
      radius: 0.5,
    })),
  },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: LENS,
});
const making = (kind, n, body) => ({ op: 'make', kind, id: crypto.randomUUID(), name: `${kind} ${n}`, order: n, body });
const many = (count, make) => Array.from({ length: count }, (_, n) => make(n));

async function project(address, name, changes = []) {
  const id = crypto.randomUUID();
  await makeProject(address, id, name);
  if (changes.length > 0) await sendEdit(address, editOf(id, 'Bench', changes));
  return id;
}

const percentile = (values, part) => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? NaN;
};
const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Milliseconds that each of many questions took: once a second each, or without pause. */
async function ask(question, { seconds, pause }) {
  const times = [];
  const until = performance.now() + seconds * 1000;
  await Promise.all(
    many(PEOPLE, async (person) => {
      // They do not all ask in the same moment.
      if (pause) await sleep((1000 * person) / PEOPLE);
      while (performance.now() < until) {
        const started = performance.now();
        await question(person);
        times.push(performance.now() - started);
        if (pause) await sleep(Math.max(0, 1000 - (performance.now() - started)));
      }
    }),
  );
  return times;
}

/** Asks as a browser does: over kept connections, for packed answers. */
function client(address) {
  const { hostname, port } = new URL(address);
  const agent = new Agent({ keepAlive: true, maxSockets: PEOPLE });
  const send = (method, path, body) =>
    new Promise((resolve, reject) => {
      const headers = { 'accept-encoding': 'gzip', ...(body ? { 'content-type': 'application/json' } : {}) };
      const sent = request({ agent, hostname, port, method, path, headers }, (reply) => {
        if (reply.statusCode !== 200) reject(new Error(`${method} ${path}: ${reply.statusCode}`));
        let size = 0;
        reply.on('data', (chunk) => (size += chunk.length));
        reply.on('end', () => resolve(size));
      });
      sent.once('error', reject);
      sent.end(body);
    });
  return {
    get: (path) => send('GET', path),
    post: (path, body) => send('POST', path, JSON.stringify(body)),
    close: () => agent.destroy(),
  };
}

export async function benchServer(address, databaseUrl) {
  const http = client(address);
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 10 });
  const moves = many(PEOPLE, (n) => making('move', n, walk(n)));
  const [edited, listed, large] = [
    await project(address, 'Edited by all', moves),
    await project(
      address,
      'Sixty views',
      many(60, (n) => making('view', n, view(n))),
    ),
    await project(address, 'Large', [
      ...many(500, (n) => making('view', n, view(n))),
      ...many(200, (n) => making('move', n, walk(n))),
    ]),
  ];
  for (let n = 0; n < 197; n += 1)
    await project(
      address,
      `Project ${n}`,
      many(3, (k) => making('view', k, view(k))),
    );

  const heights = moves.map(() => 1.6);
  const editing = (person) => {
    const before = heights[person];
    const after = Number((1 + Math.random()).toFixed(6));
    heights[person] = after;
    const change = { op: 'set', kind: 'move', id: moves[person].id, facet: ['body', 'eyeHeight'], before, after };
    return http.post(`/api/projects/${edited}/edits`, editOf(edited, 'Eye height', [change]));
  };
  // Somebody works on what the others read: what is kept ready is made anew each time.
  let round = 1;
  const working = (id) => {
    const timer = setInterval(() => {
      const change = {
        op: 'set',
        kind: 'project',
        id,
        facet: ['body', 'round'],
        before: `Round ${round}`,
        after: `Round ${round + 1}`,
      };
      round += 1;
      void sendEdit(address, editOf(id, 'Round', [change]));
    }, 1000);
    return () => (clearInterval(timer), (round = 1));
  };
  const figures = [
    ['an edit, of one project', editing, 40, null],
    ['a list of 60 views', () => http.get(`/api/projects/${listed}/views`), 30, null],
    [
      'a document of 500 views and 200 moves, edited once a second',
      () => http.get(`/api/projects/${large}/document`),
      150,
      large,
    ],
    ['the Projects screen of 200, edited once a second', () => http.get('/api/projects'), 150, listed],
  ];
  const bareCalm = percentile(await ask(() => pool.query('SELECT 1'), { seconds: CALM_SECONDS, pause: true }), 0.95);
  const bare = await ask(() => pool.query('SELECT 1'), { seconds: HASTE_SECONDS, pause: false });
  const rows = [];
  for (const [what, question, most, worked] of figures) {
    const rest = worked ? working(worked) : () => {};
    const calm = percentile(await ask(question, { seconds: CALM_SECONDS, pause: true }), 0.95);
    const haste = await ask(question, { seconds: HASTE_SECONDS, pause: false });
    rest();
    rows.push({
      what: `${what}: 50 people, once a second each, 95th percentile`,
      ours: `${calm.toFixed(1)} ms`,
      baseline: `bare database round trip, asked alike: ${bareCalm.toFixed(1)} ms`,
      ratio: `${(calm / bareCalm).toFixed(1)} × as long`,
      wanted: `< ${most} ms`,
      holds: calm < most,
    });
    rows.push({
      what: `${what}: 50 who ask without pause`,
      ours: `${percentile(haste, 0.95).toFixed(0)} ms, ${(haste.length / HASTE_SECONDS).toFixed(0)}/s`,
      baseline: `bare database round trip, 50 at once: ${percentile(bare, 0.95).toFixed(1)} ms, ${(bare.length / HASTE_SECONDS).toFixed(0)}/s`,
      ratio: `${(bare.length / haste.length).toFixed(1)} × as long`,
      wanted: '',
      holds: null,
    });
  }
  await pool.end();
  http.close();
  return rows;
}
