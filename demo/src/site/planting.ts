import { seeded, type Builder, type MaterialName, type Point } from '../kit/index.ts';
import { groundAt, HILL } from './terrain.ts';

/** Where willows stand: about the hill, by the way in, and a few towards the water. */
const WILLOWS: readonly (readonly [x: number, z: number, size: number])[] = [
  [HILL.x - 6, HILL.z + 3, 1.1],
  [HILL.x + 4, HILL.z - 4, 1.25],
  [HILL.x + 1, HILL.z + 8, 0.9],
  [HILL.x - 13, HILL.z - 6, 0.8],
  [-9, -11, 1],
  [-13, -5, 0.8],
  [-18, 18, 0.9],
  [31, -14, 1.05],
  [36, -9, 0.75],
  [-34, -24, 1.2],
  [-40, -20, 0.9],
  [86, -14, 1],
];

/** Cards of leaves about a puff, that stand every way, in two greens; lit as if the puff were round. */
function leaves(b: Builder, centre: Point, radius: number, count: number, random: () => number): void {
  for (let i = 0; i < count; i += 1) {
    const [turn, up] = [2 * Math.PI * random(), 1 - (2 * (i + 0.5)) / count];
    const level = Math.sqrt(1 - up * up);
    const out: Point = [level * Math.cos(turn), up, level * Math.sin(turn)];
    const middle: Point = [
      centre[0] + 0.62 * radius * out[0],
      centre[1] + 0.5 * radius * out[1],
      centre[2] + 0.62 * radius * out[2],
    ];
    // Two directions of the card: level, and upright leaning with the puff.
    const size = radius * (0.75 + 0.3 * random());
    const way = turn + Math.PI / 2 + 0.9 * (random() - 0.5);
    const [a, c]: [Point, Point] = [
      [Math.cos(way), 0, Math.sin(way)],
      [-up * Math.cos(turn) * 0.7, Math.max(0.45, level), -up * Math.sin(turn) * 0.7],
    ];
    const corner = (s: number, t: number): Point =>
      [0, 1, 2].map((k) => middle[k]! + size * (s * a[k]! + t * c[k]!)) as unknown as Point;
    const lit: Point = [0.7 * out[0], 0.5 + 0.5 * out[1], 0.7 * out[2]];
    const length = Math.hypot(...lit);
    const normal = lit.map((value) => value / length) as unknown as Point;
    b.face(
      random() < 0.5 ? 'Willow leaf' : 'Willow leaf, light',
      [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)],
      [normal, normal, normal, normal],
    );
  }
}

/** One puff of leaves: a rough ball of few faces. */
function puff(b: Builder, material: MaterialName, centre: Point, radius: number, random: () => number): void {
  const [rings, sides] = [4, 7];
  const grid = Array.from({ length: rings + 1 }, (_, r) =>
    Array.from({ length: sides }, (_unused, s): Point => {
      const polar = (Math.PI * r) / rings;
      const turn = (2 * Math.PI * (s + (r % 2) / 2)) / sides;
      const size = radius * (0.82 + 0.36 * random());
      return [
        centre[0] + size * Math.sin(polar) * Math.cos(turn),
        centre[1] + 0.78 * size * Math.cos(polar),
        centre[2] - size * Math.sin(polar) * Math.sin(turn),
      ];
    }),
  );
  for (let r = 0; r < rings; r += 1)
    for (let s = 0; s < sides; s += 1) {
      const next = (s + 1) % sides;
      const [a, c, d, e] = [grid[r]![s]!, grid[r + 1]![s]!, grid[r + 1]![next]!, grid[r]![next]!];
      if (r === 0) b.face(material, [grid[0]![0]!, c, d]);
      else if (r === rings - 1) b.face(material, [a, grid[rings]![0]!, e]);
      else {
        b.face(material, [a, c, d]);
        b.face(material, [a, d, e]);
      }
    }
}

/** Willows: a short leaning trunk, boughs, and puffs of two greens. */
export function planting(b: Builder): void {
  b.within('Site / Willows', () => {
    const random = seeded(31);
    for (const [x, z, size] of WILLOWS) {
      const y = groundAt(x, z) - 0.1;
      const lean = 0.5 * (random() - 0.3);
      const fork: Point = [x + lean, y + 1.7 * size, z + 0.2];
      b.turned(
        'Bark',
        [x, y, z],
        fork,
        [
          [0, 0.2 * size],
          [1, 0.13 * size],
        ],
        7,
      );
      for (let k = 0; k < 4; k += 1) {
        const turn = (2 * Math.PI * (k + random() * 0.6)) / 4;
        const reach = (0.9 + 0.5 * random()) * size;
        const top: Point = [
          fork[0] + reach * Math.cos(turn),
          fork[1] + (1 + random()) * size,
          fork[2] + reach * Math.sin(turn),
        ];
        b.turned(
          'Bark',
          fork,
          top,
          [
            [0, 0.09 * size],
            [1, 0.04 * size],
          ],
          5,
        );
        puff(b, 'Willow shade', top, 0.55 * size, random);
        leaves(b, top, 1.15 * size, 11, random);
      }
      const crown: Point = [fork[0], fork[1] + 2.1 * size, fork[2]];
      puff(b, 'Willow shade', crown, 0.7 * size, random);
      leaves(b, crown, 1.35 * size, 14, random);
    }
  });
}
