// Measuring and lighting the observatory, a house of some 36,000 triangles: survey, navigation mesh, light on two threads.
import { FIRST_WALKER } from '@eskovan/core/document';
import { countTriangles, readModel } from '@eskovan/core/format';
import { LIGHT_CHANNELS, LightBake, surveyModel, Walkway } from '@eskovan/core/survey';
import { COMMISSION_MODELS, modelGlb } from '@eskovan/demo';
import { isMainThread, parentPort, Worker } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';

const BLOCK = 1500;

const house = async () => {
  const entry = COMMISSION_MODELS.find(({ key }) => key === 'observatory');
  return readModel(await modelGlb(entry), entry.fileName);
};

if (!isMainThread && parentPort) {
  let bake;
  parentPort.on('message', async (message) => {
    if (message === 'prepare') {
      const model = await house();
      const started = performance.now();
      bake = new LightBake(model);
      parentPort.postMessage({ count: bake.count, took: performance.now() - started });
    } else parentPort.postMessage(bake.gather(message.from, message.to));
  });
}

const ask = (worker, message) =>
  new Promise((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', reject);
    worker.postMessage(message);
  });

/** Seconds for the whole light of the house on two threads, reading the file left out. */
async function bakeOnTwo() {
  const workers = [0, 1].map(() => new Worker(fileURLToPath(import.meta.url)));
  const [{ count, took }] = await Promise.all(workers.map((worker) => ask(worker, 'prepare')));
  const started = performance.now();
  const raw = new Float32Array(count * LIGHT_CHANNELS);
  let next = 0;
  await Promise.all(
    workers.map(async (worker) => {
      while (next < count) {
        const from = next;
        const to = Math.min(count, from + BLOCK);
        next = to;
        raw.set(await ask(worker, { from, to }), from * LIGHT_CHANNELS);
      }
    }),
  );
  const gathered = performance.now() - started;
  await Promise.all(workers.map((worker) => worker.terminate()));
  const bake = new LightBake(await house());
  const finishing = performance.now();
  bake.finish(raw);
  return { seconds: (took + gathered + performance.now() - finishing) / 1000, count };
}

export async function benchSite() {
  const model = await house();
  const label = `house of ${Math.round(countTriangles(model) / 1000)} k triangles`;
  let started = performance.now();
  const { survey } = surveyModel(model, FIRST_WALKER);
  const surveyed = (performance.now() - started) / 1000;
  started = performance.now();
  await Walkway.build(model, survey, FIRST_WALKER);
  const walked = (performance.now() - started) / 1000;
  const { seconds, count } = await bakeOnTwo();
  return [
    {
      what: `${label}: storeys, rooms and plans`,
      ours: `${surveyed.toFixed(1)} s`,
      baseline: '',
      ratio: '',
      wanted: '',
      holds: null,
    },
    {
      what: `${label}: navigation mesh`,
      ours: `${walked.toFixed(1)} s`,
      baseline: '',
      ratio: '',
      wanted: '',
      holds: null,
    },
    {
      what: `${label}: light of ${Math.round(count / 1000)} k vertices on two threads`,
      ours: `${seconds.toFixed(1)} s`,
      baseline: '12 s',
      ratio: '',
      wanted: 'within 12 s',
      holds: seconds <= 12,
    },
  ];
}
