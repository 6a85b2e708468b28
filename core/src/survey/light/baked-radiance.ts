import type { Daylight } from './daylight.ts';
import type { LightMesh } from './light-mesh.ts';

/** Baked light of all vertices of a site in a row. */
export interface BakedVertices {
  /** What falls on each without the sun: red, green, blue. */
  ambient: Float32Array;
  sun: Float32Array;
}

/** @param mesh of a lit site, as it is: not cut any finer */
export function bakedVertices({ parts, count }: LightMesh): BakedVertices {
  const ambient = new Float32Array(3 * count);
  const sun = new Float32Array(count);
  for (const { fine, start } of parts) {
    if (!fine.light) continue;
    ambient.set(fine.light.ambient, 3 * start);
    sun.set(fine.light.sun, start);
  }
  return { ambient, sun };
}

/** What each triangle of a lit site sends out: red, green, blue. */
export function sentByTriangles(
  { vertices, albedo, glows: [glow] }: LightMesh,
  { ambient, sun }: BakedVertices,
  day: Pick<Daylight, 'sun'>,
): Float32Array {
  const sent = new Float32Array(albedo.length);
  for (let t = 0; t < albedo.length / 3; t += 1)
    for (let k = 0; k < 3; k += 1) {
      let falls = 0;
      for (let c = 0; c < 3; c += 1) {
        const v = vertices[3 * t + c]!;
        falls += ambient[3 * v + k]! + sun[v]! * day.sun[k]!;
      }
      sent[3 * t + k] = glow![3 * t + k]! + (albedo[3 * t + k]! * falls) / 3;
    }
  return sent;
}
