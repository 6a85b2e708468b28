import { rowsOf, type PixelGather } from '@eskovan/core/survey';
import * as Comlink from 'comlink';
import { GatherShare, type GatherTask } from './gather-share.ts';

let share: GatherShare | null = null;

/** A second pair of hands for the thread that renders a still. */
const api = {
  take(task: GatherTask): void {
    share = new GatherShare(task);
  },

  rows(from: number, to: number): PixelGather {
    share!.rows(from, to);
    const rows = rowsOf(share!.gather, from, to);
    const { factors, distances, normals, places } = rows;
    return Comlink.transfer(rows, [factors.buffer, distances.buffer, normals.buffer, places.buffer]);
  },
};

export type GatherWorker = typeof api;
Comlink.expose(api);
