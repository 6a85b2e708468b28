import { LIGHT_CHANNELS, type GatheredBlock } from './gather.ts';
import type { LightMesh } from './light-mesh.ts';

/** Light is let bounce until a round changes the whole by less than this share of it, or so many rounds. */
const SETTLED = 0.001;
const MOST_ROUNDS = 40;

/**
 * Lets light bounce between surfaces until it changes nothing: G = D + (1/n) Σ (glow + ρ·G) of what the rays met, and
 * Σ w·(glow + ρ·G) of what was seen through openings
 * (the radiosity equation, Goral et al. 1984, over stored rays).
 * @param sun what a white surface square to the sun sends out because of it
 * @param of number of the light among those that were gathered
 * @returns three numbers a vertex: what a white surface there sends out, without the sun that falls on it itself;
 *   NaN inside of things
 */
export function bounceLight(
  mesh: LightMesh,
  blocks: readonly GatheredBlock[],
  sun: readonly [number, number, number],
  of: number,
): Float32Array {
  const { corners, albedo } = mesh;
  const glow = mesh.glows[of]!;
  const triangles = corners.length / 3;
  const light = new Float32Array(3 * mesh.count);
  const suns = new Float32Array(mesh.count);
  const buried = new Uint8Array(mesh.count);
  let straight = 0;
  for (const { from, direct: all, rays } of blocks) {
    const direct = all[of]!;
    for (let i = 0; i < rays.length; i += 1) {
      for (let k = 0; k < 3; k += 1) light[3 * (from + i) + k] = direct[LIGHT_CHANNELS * i + k]!;
      suns[from + i] = direct[LIGHT_CHANNELS * i + 3]!;
      buried[from + i] = rays[i] === 0 ? 1 : 0;
      straight += direct[LIGHT_CHANNELS * i]! + direct[LIGHT_CHANNELS * i + 1]! + direct[LIGHT_CHANNELS * i + 2]!;
    }
  }
  const sent = new Float32Array(3 * triangles);
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    for (let t = 0; t < triangles; t += 1) {
      let [r, g, b, falls, known] = [0, 0, 0, 0, 0];
      for (let c = 0; c < 3; c += 1) {
        const v = corners[3 * t + c]!;
        if (buried[v]) continue;
        r += light[3 * v]!;
        g += light[3 * v + 1]!;
        b += light[3 * v + 2]!;
        falls += suns[v]!;
        known += 1;
      }
      const share = known > 0 ? 1 / known : 0;
      const o = 3 * t;
      sent[o] = glow[o]! + albedo[o]! * share * (r + falls * sun[0]);
      sent[o + 1] = glow[o + 1]! + albedo[o + 1]! * share * (g + falls * sun[1]);
      sent[o + 2] = glow[o + 2]! + albedo[o + 2]! * share * (b + falls * sun[2]);
    }
    let [changed, whole] = [0, straight];
    for (const { from, direct: all, rays, met, hits, through, throughHits, throughWeights } of blocks) {
      const direct = all[of]!;
      let [at, beyond] = [0, 0];
      for (let i = 0; i < rays.length; i += 1) {
        if (met[i] === 0 && through[i] === 0) continue;
        let [r, g, b] = [0, 0, 0];
        for (const end = at + met[i]!; at < end; at += 1) {
          const o = 3 * hits[at]!;
          r += sent[o]!;
          g += sent[o + 1]!;
          b += sent[o + 2]!;
        }
        const n = rays[i]!;
        [r, g, b] = [r / n, g / n, b / n];
        for (const end = beyond + through[i]!; beyond < end; beyond += 1) {
          const o = 3 * throughHits[beyond]!;
          const weight = throughWeights[beyond]!;
          r += weight * sent[o]!;
          g += weight * sent[o + 1]!;
          b += weight * sent[o + 2]!;
        }
        const o = 3 * (from + i);
        const d = LIGHT_CHANNELS * i;
        const [nr, ng, nb] = [direct[d]! + r, direct[d + 1]! + g, direct[d + 2]! + b];
        changed += Math.abs(nr - light[o]!) + Math.abs(ng - light[o + 1]!) + Math.abs(nb - light[o + 2]!);
        whole += r + g + b;
        light[o] = nr;
        light[o + 1] = ng;
        light[o + 2] = nb;
      }
    }
    if (changed <= SETTLED * whole) break;
  }
  for (let v = 0; v < mesh.count; v += 1) if (buried[v]) light.fill(Number.NaN, 3 * v, 3 * v + 3);
  return light;
}
