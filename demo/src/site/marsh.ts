import { seeded, type Builder, type MaterialName, type Point, type Rgb } from '../kit/index.ts';
import { boardwalk, BOARDWALK_WAY } from './boardwalk.ts';
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

/** Two cards that cross: a clump of blades, leaning with the wind from the sea. Lit as the ground is. */
function clump(
  b: Builder,
  material: MaterialName,
  [x, y, z]: Point,
  [wide, tall]: readonly [number, number],
  turn: number,
) {
  const up: Point = [0, 1, 0];
  for (const way of [turn, turn + Math.PI / 2]) {
    const [c, s] = [(wide / 2) * Math.cos(way), (wide / 2) * Math.sin(way)];
    const [dx, dz] = [0.12 * tall, -0.1 * tall];
    b.face(
      material,
      [
        [x - c, y, z - s],
        [x + c, y, z + s],
        [x + c + dx, y + tall, z + s + dz],
        [x - c + dx, y + tall, z - s + dz],
      ],
      [up, up, up, up],
    );
  }
}

/** Where nothing grows: house and gravel about it, the way in, the boardwalk. */
const isBare = (x: number, z: number): boolean =>
  (x > -1.8 && x < 25.8 && z > -2.8 && z < 13.8) ||
  (x > 8.6 && x < 15.8 && z < 0 && z > -19) ||
  BOARDWALK_WAY.some(([bx, bz], i) => {
    const [ax, az] = BOARDWALK_WAY[Math.max(0, i - 1)]!;
    const [dx, dz] = [bx - ax, bz - az];
    const t = Math.min(1, Math.max(0, ((x - ax) * dx + (z - az) * dz) / (dx * dx + dz * dz || 1)));
    return Math.hypot(x - ax - t * dx, z - az - t * dz) < 1.6;
  });

function reeds(b: Builder): void {
  const random = seeded(9);
  b.within('Site / Reeds', () => {
    for (let i = 0; i < 520; i += 1) {
      const x = -18 + 70 * random();
      const z = random() < 0.75 ? 17 + 26 * random() ** 1.3 : -6 - 12 * random();
      if (isBare(x, z)) continue;
      const y = groundAt(x, z);
      // Reeds stand by the water; farther up they are few and low.
      const wet = Math.min(1, Math.max(0, 1 - (y - WATER) / 0.9));
      if (random() > 0.25 + wet) continue;
      const tall = (0.75 + 0.7 * random()) * (0.7 + 0.5 * wet);
      clump(b, 'Reed', [x, y - 0.06, z], [0.9 + 0.7 * random(), tall], Math.PI * random());
    }
  });
  b.within('Site / Grass', () => {
    for (let i = 0; i < 900; i += 1) {
      const x = -12 + 56 * random();
      const z = random() < 0.62 ? 13.6 + 18 * random() ** 1.4 : -2.6 - 17 * random();
      const y = groundAt(x, z);
      if (isBare(x, z) || y < WATER + 0.15) continue;
      clump(b, 'Grass tuft', [x, y - 0.04, z], [0.55 + 0.5 * random(), 0.2 + 0.26 * random()], Math.PI * random());
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
