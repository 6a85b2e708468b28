import { beside, stations, type Builder, type MaterialName, type Station } from '../kit/index.ts';
import { groundAt } from './terrain.ts';

/** Width of the boardwalk, and length of a board along the way, metres. */
const WIDTH = 1.7;
const BOARD = 0.28;
/** It climbs one in fourteen to this height above the marsh, so that wheels get up. */
const SLOPE = 1 / 14;
export const BOARDWALK_HEIGHT = 0.85;

/** The bends of its way, from the terrace to the channel. */
export const BOARDWALK_WAY = [
  [25.2, 7],
  [28.5, 7.4],
  [33.5, 9.5],
  [35.6, 14.5],
  [33.2, 19.5],
  [30.8, 24.5],
  [33, 29.5],
  [38.5, 31.5],
] as const;

export const boardwalkHeight = (distance: number): number =>
  0.02 + Math.min(BOARDWALK_HEIGHT, Math.max(0, distance - 0.5) * SLOPE);

/** Boards on beams on piles, a kerb on both sides, a handrail where it is high, and a platform at the water. */
export function boardwalk(b: Builder): void {
  const way = stations(BOARDWALK_WAY, BOARD, boardwalkHeight);
  boards(b, way);
  b.within('Site / Boardwalk / Beams and piles', () => {
    edges(b, way);
  });
  b.within('Site / Boardwalk / Handrail', () => {
    handrail(
      b,
      way.filter(({ distance }) => distance > 6),
    );
  });
  platform(b, way.at(-1)!);
}

function boards(b: Builder, way: readonly Station[]): void {
  b.within('Site / Boardwalk / Boards', () => {
    const tones: readonly MaterialName[] = ['Larch cladding, grey', 'Larch cladding', 'Larch cladding, grey'];
    for (let i = 0; i + 1 < way.length; i += 1) {
      const [p, q] = [way[i]!, way[i + 1]!];
      const half = WIDTH / 2;
      const material = tones[(i * 7) % 3]!;
      b.face(material, [beside(p, -half, 0), beside(p, half, 0), beside(q, half, 0), beside(q, -half, 0)]);
      for (const side of [-1, 1]) {
        const edge = [
          beside(p, side * half, -0.05),
          beside(q, side * half, -0.05),
          beside(q, side * half, 0),
          beside(p, side * half, 0),
        ] as const;
        b.face(material, side > 0 ? [...edge].reverse() : edge);
      }
    }
  });
}

const KERB = 4;
const PILES = 8;

function edges(b: Builder, way: readonly Station[]): void {
  for (let i = 0; i + KERB < way.length; i += KERB) {
    const [p, q] = [way[i]!, way[i + KERB]!];
    for (const side of [-1, 1]) {
      b.bar('Larch cladding', beside(p, side * 0.78, 0.07), beside(q, side * 0.78, 0.07), 0.09, 0.08);
      b.bar('Larch cladding', beside(p, side * 0.6, -0.14), beside(q, side * 0.6, -0.14), 0.08, 0.18);
    }
  }
  for (let i = 0; i < way.length; i += PILES) {
    const p = way[i]!;
    for (const side of [-1, 1]) {
      const [x, y, z] = beside(p, side * 0.6, -0.2);
      b.box('Larch cladding', [x - 0.07, Math.min(y, groundAt(x, z)) - 0.3, z - 0.07], [x + 0.07, y, z + 0.07], {
        bottom: true,
      });
    }
  }
}

function handrail(b: Builder, way: readonly Station[]): void {
  for (let i = 0; i + PILES < way.length; i += PILES) {
    const [p, q] = [way[i]!, way[i + PILES]!];
    b.bar('Galvanised steel', beside(p, 0.82, 0), beside(p, 0.82, 1), 0.04, 0.04);
    b.bar('Galvanised steel', beside(p, 0.82, 0.55), beside(q, 0.82, 0.55), 0.012, 0.012);
    b.bar('Galvanised steel', beside(p, 0.82, 0.3), beside(q, 0.82, 0.3), 0.012, 0.012);
    b.bar('Oak joinery', beside(p, 0.82, 1), beside(q, 0.82, 1), 0.07, 0.045);
  }
}

/** Where people stand and watch: a deck over the mud, a low rail, a bench and a board that says what flies here. */
function platform(b: Builder, end: Station): void {
  b.within('Site / Boardwalk / Platform', () => {
    const [x, y, z] = end.at;
    const [x0, x1, z0, z1] = [x - 0.1, x + 5.2, z - 2.4, z + 2.4];
    for (let k = 0; k < 19; k += 1) {
      const from = x0 + ((x1 - x0) * k) / 19;
      b.box(k % 3 ? 'Larch cladding, grey' : 'Larch cladding', [from, y - 0.06, z0], [from + (x1 - x0) / 19, y, z1], {
        bottom: true,
      });
    }
    for (const px of [x0 + 0.3, (x0 + x1) / 2, x1 - 0.3])
      for (const pz of [z0 + 0.3, z1 - 0.3])
        b.box('Larch cladding', [px - 0.1, groundAt(px, pz) - 0.4, pz - 0.1], [px + 0.1, y - 0.06, pz + 0.1], {
          bottom: true,
        });
    const rail = (from: readonly [number, number], to: readonly [number, number]) => {
      const count = Math.max(1, Math.round(Math.hypot(to[0] - from[0], to[1] - from[1]) / 1.2));
      for (let k = 0; k <= count; k += 1) {
        const [px, pz] = [from[0] + ((to[0] - from[0]) * k) / count, from[1] + ((to[1] - from[1]) * k) / count];
        b.box('Larch cladding', [px - 0.045, y, pz - 0.045], [px + 0.045, y + 1, pz + 0.045]);
      }
      b.bar('Oak joinery', [from[0], y + 1.02, from[1]], [to[0], y + 1.02, to[1]], 0.14, 0.05);
      for (const h of [0.3, 0.62])
        b.bar('Larch cladding', [from[0], y + h, from[1]], [to[0], y + h, to[1]], 0.03, 0.09);
    };
    rail([x1 - 0.05, z0 + 0.05], [x1 - 0.05, z1 - 0.05]);
    rail([x0 + 1.2, z1 - 0.05], [x1 - 0.05, z1 - 0.05]);
    rail([x0 + 1.2, z0 + 0.05], [x1 - 0.05, z0 + 0.05]);
    b.box('Larch cladding', [x0 + 1.4, y + 0.4, z0 + 0.3], [x0 + 3.6, y + 0.45, z0 + 0.72]);
    for (const px of [x0 + 1.5, x0 + 3.4]) b.box('Granite', [px, y, z0 + 0.34], [px + 0.1, y + 0.4, z0 + 0.68]);
    b.bar('Picture marsh', [x1 - 0.35, y + 1.08, z - 0.7], [x1 - 0.35, y + 1.08, z + 0.7], 0.5, 0.03);
  });
}
