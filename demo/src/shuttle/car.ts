import { Vector3 } from 'three';
import type { Builder, MaterialName, Point } from '../kit/index.ts';
import { ride } from './ride.ts';

/** Length, width and height of the body, and of the floor above the rails, metres. */
const [LENGTH, WIDTH, HEIGHT, FLOOR] = [5.2, 2.1, 2.35, 0.34];

/** Cross-section of the body, from the sill up to where the roof begins: [across, up] of one half. */
const SIDE: readonly (readonly [number, number])[] = [
  [WIDTH / 2 - 0.12, FLOOR],
  [WIDTH / 2, FLOOR + 0.25],
  [WIDTH / 2, FLOOR + 0.85],
  [WIDTH / 2 - 0.04, FLOOR + 1.75],
];

/** Where the roof is highest, metres over the rails. */
const CROWN = FLOOR + HEIGHT - 0.12;

/** The roof rounds off from the windows to its middle, in so many strips. */
const ROOF_STRIPS = 7;
const ROOF: readonly (readonly [number, number])[] = Array.from({ length: ROOF_STRIPS }, (_, i) => {
  const turn = ((i + 1) / ROOF_STRIPS) * (Math.PI / 2);
  const [across, up] = SIDE.at(-1)!;
  // Between a round and a flat roof: its shoulders are near the windows.
  return [across * Math.cos(turn) ** 0.7, up + (CROWN - up) * Math.sin(turn) ** 0.7];
});

const SECTION = [...SIDE, ...ROOF];

/** Where the windows end and the shell goes on. */
const EAVES = SIDE.length - 1;

/** Half the width of the doors, metres. */
const DOOR = 0.55;

/** The cars taper at both ends: part of the full section along the length. */
const TAPER: readonly (readonly [along: number, share: number])[] = [
  [LENGTH / 2 - 1.1, 1],
  [LENGTH / 2 - 0.8, 0.99],
  [LENGTH / 2 - 0.55, 0.96],
  [LENGTH / 2 - 0.35, 0.91],
  [LENGTH / 2 - 0.18, 0.84],
  [LENGTH / 2, 0.72],
];
const STATIONS: readonly (readonly [along: number, share: number])[] = [
  ...[...TAPER].reverse().map(([along, share]) => [-along, share] as const),
  [-DOOR, 1],
  [DOOR, 1],
  ...TAPER,
];

/** A small electric car for ten people, standing at the origin along x. It can ride along its rails. */
export function car(b: Builder): void {
  b.movements.push(ride());
  const at = (i: number, k: number, side: number): Point => {
    const [along, share] = STATIONS[i]!;
    const [across, up] = SECTION[k]!;
    return [along, FLOOR + (up - FLOOR) * (0.5 + share / 2), side * across * share];
  };
  /** Square to the shell on the side of +z, by its neighbours. */
  const normal = (i: number, k: number): Point => {
    const [before, after] = [at(Math.max(0, i - 1), k, 1), at(Math.min(STATIONS.length - 1, i + 1), k, 1)];
    const low = at(i, Math.max(EAVES, k - 1), 1);
    // Over the middle, the roof goes on as it came.
    const high: Point = k + 1 < SECTION.length ? at(i, k + 1, 1) : [low[0], low[1], -low[2]];
    const [along, up] = [new Vector3(...after), new Vector3(...high)];
    along.sub(new Vector3(...before));
    up.sub(new Vector3(...low));
    return along.cross(up).normalize().toArray();
  };
  b.within('Shuttle / Car / Body', () => {
    for (let i = 0; i + 1 < STATIONS.length; i += 1)
      for (let k = 0; k + 1 < SECTION.length; k += 1)
        for (const side of [-1, 1]) {
          const door = STATIONS[i]![0] === -DOOR && k < EAVES;
          const material: MaterialName =
            k === 0 ? 'Dark steel' : k === 1 ? 'Shuttle band' : k === 2 ? 'Tinted glass' : 'Shuttle shell';
          const quad = [at(i, k, side), at(i + 1, k, side), at(i + 1, k + 1, side), at(i, k + 1, side)] as const;
          if (door && side > 0) continue;
          // What is shell above the windows is rounded; below, its edges are edges.
          const round = k >= EAVES ? [normal(i, k), normal(i + 1, k), normal(i + 1, k + 1), normal(i, k + 1)] : null;
          const turned = round?.map(([x, y, z]): Point => [x, y, side * z]);
          b.face(material, side > 0 ? quad : [...quad].reverse(), side > 0 ? turned : turned?.reverse());
          if (k === 2 && PILLARS.includes(Math.abs(STATIONS[i]![0]))) pillar(b, at(i, 2, side), at(i, 3, side));
        }
    for (const end of [0, STATIONS.length - 1]) nose(b, at, end);
  });
  b.within('Shuttle / Car / Roof', () => solarRoof(b));
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

/** Where there is a pillar between windows, metres from the middle. */
const PILLARS: readonly number[] = [DOOR, LENGTH / 2 - 1.1, LENGTH / 2 - 0.55];

/** Rows of solar cells in frames, and the hood of a fan behind them. */
function solarRoof(b: Builder): void {
  const [from, to, panels, half] = [-1.35, 1.75, 3, 0.62];
  const length = (to - from) / panels;
  const top = CROWN + 0.07;
  for (let n = 0; n < panels; n += 1) {
    const [x0, x1] = [from + n * length, from + (n + 1) * length - 0.05];
    b.box('Galvanised steel', [x0, CROWN + 0.02, -half], [x1, top, half]);
    const cells = [5, 6] as const;
    const step = [(x1 - x0 - 0.05) / cells[0], (2 * half - 0.05) / cells[1]] as const;
    for (let i = 0; i < cells[0]; i += 1)
      for (let j = 0; j < cells[1]; j += 1) {
        const [x, z] = [x0 + 0.03 + i * step[0], -half + 0.03 + j * step[1]];
        b.face('Solar cells', [
          [x, top + 0.002, z],
          [x, top + 0.002, z + step[1] - 0.012],
          [x + step[0] - 0.012, top + 0.002, z + step[1] - 0.012],
          [x + step[0] - 0.012, top + 0.002, z],
        ]);
      }
    for (const x of [x0 + 0.12, x1 - 0.12])
      for (const z of [-half + 0.08, half - 0.08])
        b.box('Dark steel', [x - 0.03, CROWN - 0.14, z - 0.03], [x + 0.03, CROWN + 0.02, z + 0.03]);
  }
  b.box('Enamel, dark', [-2, CROWN - 0.05, -0.3], [-1.55, CROWN + 0.12, 0.3]);
  b.box('Galvanised steel', [-2.02, CROWN + 0.12, -0.32], [-1.53, CROWN + 0.14, 0.32]);
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
