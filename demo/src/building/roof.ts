import type { Builder, MaterialName, Point } from '../kit/index.ts';
import * as D from './dimensions.ts';

const OVERHANG = 0.6;
const THICKNESS = 0.22;
const SLOPE = (D.RIDGE - D.EAVES) / D.RIDGE_LINE;
const RAFTER = 0.26;

/** Underside in boards along the roof, zinc with standing seams on top. */
function covering(b: Builder): void {
  const [x0, x1] = [-OVERHANG, D.EAST + OVERHANG];
  const strips = 24;
  for (const side of [-1, 1] as const) {
    const zAt = (part: number) => D.RIDGE_LINE + side * part * (D.RIDGE_LINE + OVERHANG);
    const yAt = (part: number) => D.RIDGE - part * (D.RIDGE_LINE + OVERHANG) * SLOPE;
    const quad = (material: MaterialName, p0: number, p1: number, lift: number, upward: boolean) => {
      const corners: Point[] = [
        [x0, yAt(p0) + lift, zAt(p0)],
        [x1, yAt(p0) + lift, zAt(p0)],
        [x1, yAt(p1) + lift, zAt(p1)],
        [x0, yAt(p1) + lift, zAt(p1)],
      ];
      // Seen from below for the lining, from above for the zinc.
      const flip = side > 0 === upward;
      b.face(material, flip ? corners.reverse() : corners);
    };
    b.within('Roof / Lining', () => {
      for (let i = 0; i < strips; i += 1)
        quad(i % 3 === 1 ? 'Spruce lining, dark' : 'Spruce lining', i / strips, (i + 1) / strips, 0, false);
    });
    b.within('Roof / Zinc', () => {
      quad('Zinc roof', 0, 1, THICKNESS, true);
      for (let x = x0 + 0.6; x < x1; x += 0.6)
        b.bar('Zinc roof', [x, yAt(0) + THICKNESS, zAt(0)], [x, yAt(1) + THICKNESS, zAt(1)], 0.03, 0.06);
      b.box('Spruce frame', [x0, yAt(1), zAt(1)], [x1, yAt(1) + THICKNESS, zAt(1) + side * 0.03]);
      for (const x of [x0, x1])
        b.bar(
          'Spruce frame',
          [x, yAt(0) + THICKNESS / 2, zAt(0)],
          [x, yAt(1) + THICKNESS / 2, zAt(1)],
          0.03,
          THICKNESS,
        );
    });
  }
}

/** Trusses over the hall, the gallery and the deck: rafters, tie, king post, struts. */
function trusses(b: Builder): void {
  const drop = RAFTER / 2 + 0.01;
  const tie = D.EAVES - 0.12;
  b.within('Roof / Trusses', () => {
    for (let x = D.HALL_WEST + 1; x < D.EAST; x += 2) {
      // Over the deck a tie would hit heads: there the collar sits higher.
      const collar = x > D.HALL_EAST ? D.DECK + 3.1 : tie;
      for (const side of [-1, 1] as const) {
        const eaves = D.RIDGE_LINE + side * (D.RIDGE_LINE - D.OUTER_WALL);
        b.bar('Spruce frame', [x, D.RIDGE - drop, D.RIDGE_LINE], [x, D.roofAt(eaves) - drop, eaves], 0.12, RAFTER);
        const foot = D.RIDGE_LINE + side * 0.06;
        const along = D.RIDGE_LINE + side * 2.1;
        b.bar('Spruce frame', [x, collar + 0.1, foot], [x, D.roofAt(along) - RAFTER, along], 0.1, 0.12);
      }
      const reach = D.RIDGE_LINE - D.OUTER_WALL - Math.max(0, (collar - tie) / SLOPE);
      b.box(
        'Spruce frame',
        [x - 0.05, collar - 0.11, D.RIDGE_LINE - reach],
        [x + 0.05, collar + 0.11, D.RIDGE_LINE + reach],
      );
      b.box('Spruce frame', [x - 0.06, collar, D.RIDGE_LINE - 0.07], [x + 0.06, D.RIDGE - 0.2, D.RIDGE_LINE + 0.07]);
      b.box(
        'Dark steel',
        [x - 0.07, collar - 0.16, D.RIDGE_LINE - 0.08],
        [x + 0.07, collar - 0.02, D.RIDGE_LINE + 0.08],
      );
    }
    for (const side of [-1, 1])
      for (const part of [0.3, 0.62, 0.9]) {
        const z = D.RIDGE_LINE + side * part * D.RIDGE_LINE;
        b.box(
          'Spruce frame',
          [D.HALL_WEST + 0.08, D.roofAt(z) - 0.17, z - 0.05],
          [D.EAST - D.OUTER_WALL, D.roofAt(z) - 0.03, z + 0.05],
        );
      }
  });
}

/** Upright larch boards on the outside, left out at openings by ending at window height. */
function cladding(b: Builder): void {
  b.within('Building / Cladding', () => {
    // Between boards one sees what is behind them: dark paper, not the wall.
    const gap = (a: readonly [number, number], c: readonly [number, number], low: number, high: number) =>
      b.face('Wind paper', [
        [a[0], low, a[1]],
        [c[0], low, c[1]],
        [c[0], high, c[1]],
        [a[0], high, a[1]],
      ]);
    const board = (x0: number, z0: number, x1: number, z1: number, low: number, high: number, i: number) =>
      b.box(i % 3 === 0 ? 'Larch cladding, grey' : 'Larch cladding', [x0, low, z0], [x1, high, z1], {
        bottom: true,
        top: true,
      });
    const step = 0.3;
    for (let i = 0; i * step < D.SOUTH; i += 1) {
      const z = i * step;
      for (const [face, out, openings] of [
        [
          0,
          -0.03,
          [
            [2.2, 4.4, 0.45, 2.4],
            [8.2, 10, 0.9, 2.4],
          ],
        ],
        [
          D.EAST,
          D.EAST + 0.03,
          [
            [1.6, 4, 0.75, 2.4],
            [7, 10.4, 0.45, 3.4],
            [0.9, 4.9, 4.08, 5.43],
          ],
        ],
      ] as const) {
        pieces(z, z + step, openings).forEach(([low, high]) => {
          board(face, z + 0.01, out, z + step - 0.01, low, high, i);
          const x = face + Math.sign(out - face) * 0.008;
          const [z0, z1] = [z + step - 0.01, Math.min(D.SOUTH, z + step + 0.01)];
          gap([x, out < face ? z0 : z1], [x, out < face ? z1 : z0], low, high);
        });
      }
    }
    for (let i = 0; i * step < D.EAST; i += 1) {
      const x = i * step;
      const seam = [x + step - 0.01, Math.min(D.EAST, x + step + 0.01)] as const;
      const north = [
        [1.6, 3.4, 0.75, 2.4],
        [4.8, 6.6, 0.75, 2.4],
        [17.4, 19.2, 0.75, 2.4],
        [20.6, 22.8, 0.75, 2.4],
        [10.9, 13.1, -0.6, 2.6],
        [17, 23.2, 4.08, 5.18],
        [9.4, 14.6, 4.13, 5.13],
      ] as const;
      const south = [
        [1.4, 3.4, 0.9, 2.4],
        [4.6, 6.6, 0.9, 2.4],
        [17, 18.7, 0.45, 3.6],
        [19.4, 21.1, 0.45, 3.6],
        [21.8, 23.3, 0.45, 3.6],
        [9.2, 14.8, 0, 5.1],
      ] as const;
      pieces(x, x + step, north).forEach(([low, high]) => {
        board(x + 0.01, 0, x + step - 0.01, -0.03, low, high, i);
        gap([seam[1], -0.008], [seam[0], -0.008], low, high);
      });
      pieces(x, x + step, south).forEach(([low, high]) => {
        board(x + 0.01, D.SOUTH, x + step - 0.01, D.SOUTH + 0.03, low, high, i);
        gap([seam[0], D.SOUTH + 0.008], [seam[1], D.SOUTH + 0.008], low, high);
      });
    }
  });
}

/** The stretches of a board's height that no opening (from, to, sill, head above the floor) touches. */
function pieces(
  from: number,
  to: number,
  openings: readonly (readonly [number, number, number, number])[],
): [number, number][] {
  const hit = openings.filter((o) => o[0] < to - 0.02 && o[1] > from + 0.02).sort((p, q) => p[2] - q[2]);
  const out: [number, number][] = [];
  let low = 0.08;
  for (const [, , sill, head] of hit) {
    if (D.FLOOR + sill - low > 0.05) out.push([low, D.FLOOR + sill]);
    low = D.FLOOR + head;
  }
  if (D.EAVES - low > 0.05) out.push([low, D.EAVES]);
  return out;
}

export function roof(b: Builder): void {
  covering(b);
  trusses(b);
  cladding(b);
}
