import { seeded, type Builder, type Point, type Rgb } from '../kit/index.ts';
import { boardwalk } from './boardwalk.ts';
import { planting } from './planting.ts';
import { coverAt, groundAt, WATER } from './terrain.ts';

/** How far the marsh reaches from its middle, metres. */
const REACH = 260;

/** Distances of grid lines from the middle: cells grow, the far marsh is seen as a line. */
function lines(): number[] {
  const out: number[] = [];
  for (let d = 0, step = 2; d < REACH; step *= 1.1) {
    out.push(d);
    d += step;
  }
  out.push(REACH);
  const back = out.slice(1).map((d) => -d);
  return [...back.reverse(), ...out];
}

function ground(b: Builder): void {
  b.within('Site / Marsh', () => {
    const grid = lines();
    const corners: Point[] = [];
    const colors: Rgb[] = [];
    for (const dz of grid)
      for (const dx of grid) {
        const [x, z] = [dx + 12, dz + 6];
        // Under water nobody sees the ground: it only has to stay below.
        corners.push([x, Math.max(groundAt(x, z), WATER - 0.5), z]);
        colors.push(coverAt(x, z));
      }
    const n = grid.length;
    const triangles: [number, number, number][] = [];
    for (let j = 0; j + 1 < n; j += 1)
      for (let i = 0; i + 1 < n; i += 1) {
        const a = j * n + i;
        const [c, d, e] = [a + n, a + n + 1, a + 1];
        // Diagonals alternate: a slope has no grain.
        if ((i + j) % 2) triangles.push([a, c, d], [a, d, e]);
        else triangles.push([a, c, e], [c, d, e]);
      }
    b.surface('Marsh ground', corners, colors, triangles);
  });
  b.within('Site / Water', () => {
    const span = (from: number, to: number, count: number) =>
      Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
    const [xs, zs] = [span(12 - REACH, 12 + REACH, 12), span(28, 6 + REACH, 8)];
    for (let i = 0; i + 1 < xs.length; i += 1)
      for (let j = 0; j + 1 < zs.length; j += 1)
        b.face('Tidal water', [
          [xs[i]!, WATER, zs[j]!],
          [xs[i]!, WATER, zs[j + 1]!],
          [xs[i + 1]!, WATER, zs[j + 1]!],
          [xs[i + 1]!, WATER, zs[j]!],
        ]);
  });
}

function paths(b: Builder): void {
  b.within('Site / Path', () => {
    b.box('Shell gravel', [9, -0.2, -18], [15, 0, -2.5], { bottom: true });
    b.box('Shell gravel', [-1.5, -0.2, -2.5], [25.5, 0, 13.5], { bottom: true });
    b.box('Granite', [9, -0.1, -18], [9.12, 0.03, -2.5]);
    b.box('Granite', [14.88, -0.1, -18], [15, 0.03, -2.5]);
    // A bench by the way, and bollards that light it.
    b.box('Larch cladding, grey', [15.3, 0.4, -9.4], [15.75, 0.46, -7.6]);
    for (const z of [-9.2, -7.9]) b.box('Granite', [15.35, -0.1, z], [15.7, 0.4, z + 0.12]);
    for (const z of [-5, -10, -15])
      for (const x of [8.7, 15.25]) {
        b.box('Dark steel', [x - 0.05, -0.1, z - 0.05], [x + 0.05, 0.78, z + 0.05]);
        b.box('Lamp glow', [x - 0.052, 0.66, z - 0.052], [x + 0.052, 0.74, z + 0.052]);
      }
  });
}

function reeds(b: Builder): void {
  b.within('Site / Reeds', () => {
    const random = seeded(9);
    for (let i = 0; i < 420; i += 1) {
      const x = -16 + 62 * random();
      const z = random() < 0.75 ? 15.5 + 20 * random() ** 1.5 : -4 - 8 * random();
      if (z < 0 && x > 7 && x < 17) continue;
      const y = groundAt(x, z) - 0.05;
      // A clump of thin blades, leaning with the wind from the sea.
      for (let blade = 0; blade < 6; blade += 1) {
        const [turn, tall] = [random() * Math.PI, 0.6 + 0.9 * random()];
        const [bx, bz] = [x + 0.5 * (random() - 0.5), z + 0.5 * (random() - 0.5)];
        const [c, s] = [0.03 * Math.cos(turn), 0.03 * Math.sin(turn)];
        const tip: Point = [bx + 0.25 * random(), y + tall, bz - 0.2 * random()];
        b.face(random() < 0.6 ? 'Reed' : 'Marsh grass, dry', [[bx - c, y, bz - s], [bx + c, y, bz + s], tip]);
      }
    }
  });
}

/** The landscape: tidal marsh, channel, hill, paths, boardwalk, reeds and willows. */
export function marsh(b: Builder): void {
  ground(b);
  paths(b);
  boardwalk(b);
  reeds(b);
  planting(b);
}
