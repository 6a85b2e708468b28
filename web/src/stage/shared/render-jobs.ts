import type { BodyOf, FileRef } from '@eskovan/core/document';
import * as Comlink from 'comlink';
import { create } from 'zustand';
import { uploadFile } from '../../data/api.ts';
import { making } from '../../data/changes.ts';
import { saveForMachine } from '../../data/edits.ts';
import { workUnderWay } from '../../data/unfinished.ts';
import type { FilmOrder, FilmWorker } from '../../worker/film.worker.ts';
import { saidOf } from '../../worker/said.ts';
import { startWorker } from '../../worker/start-worker.ts';

export interface RenderWish {
  projectId: string;
  /** What is rendered, by name for the list. */
  source: BodyOf<'take'>['source'];
  order: FilmOrder;
}

export interface RenderJob extends RenderWish {
  id: string;
  state: 'waiting' | 'drawing' | 'storing' | 'failed';
  /** Frames done, and how many there are. */
  done: number;
  frames: number;
  /** Milliseconds since the epoch when drawing began. */
  started: number;
  message: string | null;
}

interface Jobs {
  jobs: RenderJob[];
}

/** Renders of this tab, in order; one is drawn at a time. They go on while other screens are used. */
export const useRenderJobs = create<Jobs>()(() => ({ jobs: [] }));

const cancels = new Map<string, () => void>();

const update = (id: string, change: Partial<RenderJob>) =>
  useRenderJobs.setState(({ jobs }) => ({ jobs: jobs.map((job) => (job.id === id ? { ...job, ...change } : job)) }));
const remove = (id: string) => useRenderJobs.setState(({ jobs }) => ({ jobs: jobs.filter((job) => job.id !== id) }));

export function startRender(wish: RenderWish): void {
  const { output } = wish.order;
  const job: RenderJob = {
    ...wish,
    id: crypto.randomUUID(),
    state: 'waiting',
    done: 0,
    frames: output.kind === 'video' ? output.frames : 1,
    started: 0,
    message: null,
  };
  useRenderJobs.setState(({ jobs }) => ({ jobs: [...jobs, job] }));
  void work();
}

/** Stops a job, or takes a failed one off the list. */
export function dropRender(id: string): void {
  cancels.get(id)?.();
  remove(id);
}

/** What a person is told, whatever an encoder or a graphics driver had to say. */
const NOT_RENDERED =
  'It could not be rendered: this machine ran out of memory, or its graphics or video encoder gave up. Try a smaller size, or reload the page and try again.';

let working = false;

async function work(): Promise<void> {
  if (working) return;
  working = true;
  try {
    for (;;) {
      const next = useRenderJobs.getState().jobs.find((job) => job.state === 'waiting');
      if (!next) return;
      await render(next);
    }
  } finally {
    working = false;
  }
}

async function render(job: RenderJob): Promise<void> {
  const worker = startWorker('film');
  const started = Date.now();
  const cancelled = new Promise<never>((_, reject) =>
    cancels.set(job.id, () => reject(new DOMException('Cancelled', 'AbortError'))),
  );
  const crashed = new Promise<never>((_, reject) =>
    worker.addEventListener('error', () => reject(new Error('stopped'))),
  );
  const ended = workUnderWay(`${job.source.name} is being rendered`);
  update(job.id, { state: 'drawing', started });
  try {
    const onProgress = Comlink.proxy((done: number) => update(job.id, { done }));
    const { file, poster } = await Promise.race([
      Comlink.wrap<FilmWorker>(worker).render(job.order, onProgress),
      cancelled,
      crashed,
    ]);
    update(job.id, { state: 'storing' });
    const [stored, small] = await Promise.race([
      Promise.all([uploadFile(file, file.type), uploadFile(poster, poster.type)]),
      cancelled,
    ]);
    keepTake(job, stored, small, (Date.now() - started) / 1000);
    remove(job.id);
  } catch (error) {
    if (!(error instanceof DOMException && error.name === 'AbortError'))
      update(job.id, { state: 'failed', message: saidOf(error, NOT_RENDERED) });
  } finally {
    cancels.delete(job.id);
    ended();
    // At once, in the middle of a frame if need be.
    worker.terminate();
  }
}

/** A finished render becomes a take. The server gives it its number; no take is ever overwritten. */
function keepTake(job: RenderJob, file: FileRef, poster: FileRef, renderSeconds: number): void {
  const { size, subframes, output } = job.order;
  const shared = {
    number: 0,
    source: job.source,
    width: size.width,
    height: size.height,
    subframes,
    file,
    poster,
    renderSeconds,
  };
  const body: BodyOf<'take'> =
    output.kind === 'video'
      ? { kind: 'video', ...shared, rate: output.rate, frames: output.frames }
      : { kind: 'still', ...shared };
  saveForMachine(job.projectId, `Render ${job.source.name}`, [
    making('take', { id: crypto.randomUUID(), name: job.source.name || 'Take', order: Date.now(), body }),
  ]);
}
