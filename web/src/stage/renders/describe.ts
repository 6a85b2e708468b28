import type { RenderJob } from '../shared/render-jobs.ts';

/** Seconds until a job is done, from how it has gone so far; null while nobody can tell. */
export function secondsLeft(job: Pick<RenderJob, 'done' | 'frames' | 'started' | 'state'>, now: number): number | null {
  if (job.state !== 'drawing' || job.done < 2) return null;
  return ((now - job.started) / 1000 / job.done) * (job.frames - job.done);
}
