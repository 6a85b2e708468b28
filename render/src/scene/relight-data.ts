import type { ScenePart } from '@eskovan/core/format';
import type { MovedVertices } from '@eskovan/core/survey';
import { floats, type Growing } from './growing.ts';

/** What a surface makes of the light that falls on it: its colours in the working view and in finished pictures. */
export interface Reflecting {
  working: (v: number, k: number) => number;
  finished: (v: number, k: number) => number;
  /** What it sends out by itself. */
  glow: (k: number) => number;
}

/** What lights a moved piece of a scene anew, three numbers a vertex each; of the sun one. */
export interface Relight extends MovedVertices {
  sun: Float32Array;
  working: Float32Array;
  finished: Float32Array;
  glow: Float32Array;
}

type Name = Exclude<keyof Relight, 'positions'>;

/** Collects what lights a piece of a scene anew. */
export class GrowingRelight {
  private readonly all: Record<Name, Growing<Float32Array>> = {
    normals: floats(),
    ambient: floats(),
    sun: floats(),
    working: floats(),
    finished: floats(),
    glow: floats(),
  };

  add({ normals, light }: ScenePart, { working, finished, glow }: Reflecting, v: number): void {
    const put = (name: Name, value: (k: number) => number, width = 3) => {
      const to = this.all[name];
      const at = to.take(width);
      for (let k = 0; k < width; k += 1) to.array[at + k] = value(k);
    };
    put('normals', (k) => normals[3 * v + k]!);
    put('ambient', (k) => light!.ambient[3 * v + k]!);
    put('sun', () => light!.sun[v]!, 1);
    put('working', (k) => working(v, k));
    put('finished', (k) => finished(v, k));
    put('glow', glow);
  }

  done(positions: Float32Array): Relight {
    const { normals, ambient, sun, working, finished, glow } = this.all;
    return {
      positions,
      normals: normals.done(),
      ambient: ambient.done(),
      sun: sun.done(),
      working: working.done(),
      finished: finished.done(),
      glow: glow.done(),
    };
  }
}
