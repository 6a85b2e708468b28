import type { Builder, MaterialName, Point } from '../kit/index.ts';
import { ride } from './ride.ts';

/** Length, width and height of the body, and of the floor above the rails, metres. */
const [LENGTH, WIDTH, HEIGHT, FLOOR] = [5.2, 2.1, 2.35, 0.34];

/** Cross-section of the body, from the sill up over the roof: [across, up] of one half. */
const SECTION: readonly (readonly [number, number])[] = [
  [WIDTH / 2 - 0.12, FLOOR],
  [WIDTH / 2, FLOOR + 0.25],
  [WIDTH / 2, FLOOR + 0.85],
  [WIDTH / 2 - 0.04, FLOOR + 1.75],
  [WIDTH / 2 - 0.22, FLOOR + HEIGHT - 0.28],
  [0, FLOOR + HEIGHT - 0.12],
];

/** The cars taper at both ends: part of the full section along the length. */
const STATIONS: readonly (readonly [along: number, share: number])[] = [
  [-LENGTH / 2, 0.72],
  [-LENGTH / 2 + 0.55, 0.95],
  [-LENGTH / 2 + 1.1, 1],
  [-0.55, 1],
  [0.55, 1],
  [LENGTH / 2 - 1.1, 1],
  [LENGTH / 2 - 0.55, 0.95],
  [LENGTH / 2, 0.72],
];

/** A small electric car for ten people, standing at the origin along x. It can ride along its rails. */
export function car(b: Builder): void {
  b.movements.push(ride());
  const at = (i: number, k: number, side: number): Point => {
    const [along, share] = STATIONS[i]!;
    const [across, up] = SECTION[k]!;
    return [along, FLOOR + (up - FLOOR) * (0.5 + share / 2), side * across * share];
  };
  b.within('Shuttle / Car / Body', () => {
    for (let i = 0; i + 1 < STATIONS.length; i += 1)
      for (let k = 0; k + 1 < SECTION.length; k += 1)
        for (const side of [-1, 1]) {
          const door = i === 3 && k < 3;
          const material: MaterialName =
            k === 0 ? 'Dark steel' : k === 1 ? 'Shuttle band' : k === 2 ? 'Tinted glass' : 'Shuttle shell';
          const quad = [at(i, k, side), at(i + 1, k, side), at(i + 1, k + 1, side), at(i, k + 1, side)] as const;
          if (door && side > 0) continue;
          b.face(material, side > 0 ? quad : [...quad].reverse());
          if (k === 2 && i > 0) pillar(b, at(i, 2, side), at(i, 3, side));
        }
    for (const end of [0, STATIONS.length - 1]) nose(b, at, end);
  });
  b.within('Shuttle / Car / Inside', () => {
    b.box('Enamel, dark', [-LENGTH / 2 + 0.3, FLOOR, -0.85], [LENGTH / 2 - 0.3, FLOOR + 0.05, 0.85]);
    for (const [x0, x1] of [
      [-2.1, -0.7],
      [0.7, 2.1],
    ] as const) {
      b.box('Wool, lagoon', [x0, FLOOR + 0.4, -0.9], [x1, FLOOR + 0.5, -0.45]);
      b.box('Oak joinery', [x0, FLOOR + 0.05, -0.88], [x1, FLOOR + 0.4, -0.5]);
      b.box('Wool, lagoon', [x0, FLOOR + 0.5, -0.94], [x1, FLOOR + 0.95, -0.86]);
      b.box('Brass', [(x0 + x1) / 2 - 0.02, FLOOR + 0.05, 0.2], [(x0 + x1) / 2 + 0.02, FLOOR + 2, 0.24]);
    }
  });
  b.within('Shuttle / Car / Underframe', () => {
    b.box('Dark steel', [-LENGTH / 2 + 0.4, 0.18, -0.7], [LENGTH / 2 - 0.4, FLOOR, 0.7]);
    for (const x of [-1.5, 1.5])
      for (const z of [-0.55, 0.55])
        b.turned(
          'Galvanised steel',
          [x, 0.25, z - 0.06],
          [x, 0.25, z + 0.06],
          [
            [0, 0],
            [0, 0.19],
            [0.7, 0.19],
            [0.7, 0.23],
            [1, 0.23],
            [1, 0],
          ],
          16,
        );
    b.box('Rubber', [-LENGTH / 2 - 0.08, 0.3, -0.4], [-LENGTH / 2 + 0.1, 0.42, 0.4]);
    b.box('Rubber', [LENGTH / 2 - 0.1, 0.3, -0.4], [LENGTH / 2 + 0.08, 0.42, 0.4]);
  });
  b.within('Shuttle / Car / Lamps', () => {
    for (const x of [-LENGTH / 2 - 0.02, LENGTH / 2 - 0.02])
      for (const z of [-0.5, 0.4]) b.box('Lamp glow', [x, FLOOR + 0.42, z], [x + 0.04, FLOOR + 0.52, z + 0.1]);
  });
}

function pillar(b: Builder, low: Point, high: Point): void {
  b.bar('Shuttle shell', low, high, 0.06, 0.08);
}

/** Closes an end: windscreen above, shell below. */
function nose(b: Builder, at: (i: number, k: number, side: number) => Point, end: number): void {
  for (let k = 0; k + 1 < SECTION.length; k += 1) {
    const quad = [at(end, k, -1), at(end, k, 1), at(end, k + 1, 1), at(end, k + 1, -1)] as const;
    const material: MaterialName =
      k === 2 ? 'Tinted glass' : k === 0 ? 'Dark steel' : k === 1 ? 'Shuttle band' : 'Shuttle shell';
    const flat = k + 1 === SECTION.length - 1;
    const corners = flat ? [quad[0], quad[1], quad[2]] : [...quad];
    b.face(material, end === 0 ? corners : corners.reverse());
  }
}
