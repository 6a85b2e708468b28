import type { Builder } from '../kit/index.ts';
import * as D from './dimensions.ts';

const RAIL = 0.95;

/** Rail and slender balusters along a level edge. */
export function balustrade(
  b: Builder,
  from: readonly [number, number],
  to: readonly [number, number],
  base: number,
): void {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const at = (s: number) =>
    [from[0] + ((to[0] - from[0]) * s) / length, from[1] + ((to[1] - from[1]) * s) / length] as const;
  const high = base + RAIL;
  b.bar('Oak joinery', [from[0], high, from[1]], [to[0], high, to[1]], 0.06, 0.045);
  b.bar('Dark steel', [from[0], base + 0.09, from[1]], [to[0], base + 0.09, to[1]], 0.02, 0.03);
  const posts = Math.max(1, Math.round(length / 1.6));
  for (let i = 0; i <= posts; i += 1) {
    const [x, z] = at((length * i) / posts);
    b.box('Oak joinery', [x - 0.03, base, z - 0.03], [x + 0.03, high, z + 0.03], { top: true, bottom: true });
  }
  const rods = Math.floor(length / 0.13);
  for (let i = 1; i < rods; i += 1) {
    const [x, z] = at((length * i) / rods);
    b.box('Dark steel', [x - 0.007, base + 0.09, z - 0.007], [x + 0.007, high - 0.02, z + 0.007], {
      top: true,
      bottom: true,
    });
  }
}

/** Nosing `n` (1 … STAIR_RISERS): its z and the height of its tread. */
export function nosing(n: number): { z: number; y: number } {
  return { z: D.STAIR.foot - (n - 1) * D.GOING, y: D.FLOOR + n * D.RISER };
}

export function stair(b: Builder): void {
  const { west, width } = D.STAIR;
  const east = west + width;
  b.within('Building / Stair / Treads', () => {
    for (let n = 1; n < D.STAIR_RISERS; n += 1) {
      const { z, y } = nosing(n);
      b.box('Oak board, mid', [west + 0.05, y - 0.045, z - D.GOING - 0.02], [east - 0.05, y, z]);
    }
  });
  b.within('Building / Stair / Strings', () => {
    const first = nosing(1);
    const last = nosing(D.STAIR_RISERS);
    for (const x of [west + 0.03, east - 0.03])
      b.bar('Oak joinery', [x, first.y - 0.22, first.z + 0.1], [x, last.y - 0.22, last.z], 0.05, 0.3);
  });
  b.within('Building / Stair / Rail', () => {
    const x = east - 0.03;
    const first = nosing(1);
    const last = nosing(D.STAIR_RISERS);
    b.bar('Oak joinery', [x, first.y + 0.9, first.z], [x, last.y + 0.9, last.z], 0.06, 0.045);
    for (let n = 1; n < D.STAIR_RISERS; n += 1)
      for (const share of [0.2, 0.7]) {
        const { z, y } = nosing(n);
        const rise = share * D.RISER;
        b.box(
          'Dark steel',
          [x - 0.007, y - 0.05, z - share * D.GOING - 0.007],
          [x + 0.007, y + 0.88 + rise, z - share * D.GOING + 0.007],
          { top: true, bottom: true },
        );
      }
    b.box('Oak joinery', [x - 0.04, D.FLOOR, first.z + 0.02], [x + 0.04, first.y + 0.98, first.z + 0.1]);
  });
  b.within('Building / Balustrades', () => {
    balustrade(
      b,
      [D.STAIR.west + width + 0.05, D.BRIDGE.south - 0.05],
      [D.HALL_EAST - 0.12, D.BRIDGE.south - 0.05],
      D.DECK,
    );
    balustrade(b, [D.HALL_WEST + 0.12, D.BRIDGE.north + 0.05], [D.HALL_EAST - 0.12, D.BRIDGE.north + 0.05], D.DECK);
    balustrade(b, [D.HALL_EAST + 0.12, D.GALLERY_NORTH], [D.EAST - D.OUTER_WALL - 0.05, D.GALLERY_NORTH], D.DECK);
  });
}

/** Three risers before the door, a landing under a light canopy. */
export function entranceSteps(b: Builder): void {
  b.within('Site / Entrance steps', () => {
    const [x0, x1] = [9.6, 14.4];
    b.box('Granite, pale', [x0, 0, -2.2], [x1, D.FLOOR, 0], { bottom: true });
    for (let n = 1; n <= 2; n += 1)
      b.box('Granite, pale', [x0, 0, -2.2 - n * 0.3], [x1, D.FLOOR - n * D.RISER, -2.2 - (n - 1) * 0.3], {
        bottom: true,
      });
  });
  b.within('Site / Canopy', () => {
    for (const x of [9.8, 14.2]) b.box('Spruce frame', [x - 0.07, D.FLOOR, -2], [x + 0.07, 3.5, -1.86]);
    b.box('Spruce frame', [9.6, 3.4, -2.02], [14.4, 3.58, -1.84]);
    for (let x = 9.7; x < 14.4; x += 0.66) b.bar('Spruce frame', [x, 3.66, -2.3], [x, 3.74, 0], 0.06, 0.14);
    b.bar('Zinc roof', [12, 3.76, -2.4], [12, 3.84, 0], 5.1, 0.05);
  });
}
