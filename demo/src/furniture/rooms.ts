import * as D from '../building/dimensions.ts';
import type { Builder } from '../kit/index.ts';
import { deskLamp, flock, pendant, picture, plant } from './fittings.ts';
import { armchair, bench, chair, placed, stool } from './seating.ts';
import { bookshelf, counter, cup, roundTable, showcase, table, tideTable, wader } from './tables.ts';

const F = D.FLOOR;
const NORTH = 0;
const EAST = -Math.PI / 2;
const SOUTH = Math.PI;
const WEST = Math.PI / 2;

function hall(b: Builder): void {
  b.within('Hall / Reception', () => {
    counter(b, 10.2, 12.6, F, 6.4);
    b.box('Dark steel', [11, F + 1.02, 6.6], [11.4, F + 1.04, 6.8]);
    b.turnedBox('Dark steel', [11.2, F + 1.04, 6.62], [0.5, 0.32, 0.02], 0.1);
    wader(b, 12.3, F + 1.02, 6.7, 1.1);
    stool(b, 11.6, F, 6.0, 0.62);
  });
  b.within('Hall / Seats', () => {
    b.box('Wool, sand', [10.6, F, 9], [13.6, F + 0.012, 11], { bottom: true });
    bench(b, 12.1, F, 9.3, NORTH, 2.2);
    armchair(b, 10.9, F, 10.4, -2.4, 'Wool, ochre');
    armchair(b, 13.3, F, 10.4, 2.4, 'Wool, lagoon');
    b.lathe(
      'Walnut',
      [12.1, F, 10.35],
      [
        [0.3, 0.36],
        [0.32, 0.38],
        [0.32, 0.4],
        [0, 0.4],
      ],
      16,
    );
    b.lathe(
      'Dark steel',
      [12.1, F, 10.35],
      [
        [0.18, 0],
        [0.02, 0.03],
        [0.02, 0.38],
      ],
      8,
    );
  });
  b.within('Hall / Plants', () => {
    plant(b, 15.4, F, 11.2, 1.5, 5);
    plant(b, 9.75, F, 11.25, 1.2, 6);
    plant(b, 10.35, F, 0.75, 1.1, 8);
  });
  b.within('Hall / Terns', () => flock(b, [12.4, F + 3.6, 8.2], (z) => D.roofAt(z)));
  b.within('Hall / Pendants', () => {
    for (const z of [7.4, 9.4]) for (const x of [10, 14.4]) pendant(b, x, F + 3.3, z, D.roofAt(z) - 0.2);
    for (const x of [10.4, 13.6]) pendant(b, x, F + 2.35, 1.9, D.EAVES + 0.4);
  });
  b.within('Hall / Pictures', () => {
    picture(b, D.HALL_EAST - 0.07, F + 1.65, 6.4, EAST, [1.3, 0.9], 3);
    picture(b, D.HALL_EAST - 0.07, F + 1.65, 10.6, EAST, [1.1, 1.3], 4);
  });
}

function readingRoom(b: Builder): void {
  b.within('Reading room / Shelves', () => {
    const back = D.WORKSHOP_NORTH - D.INNER_WALL / 2;
    for (let i = 0; i < 4; i += 1) bookshelf(b, 1.5 + i * 1.62, F, back, SOUTH, 1.56, 2.2, 100 + i);
    bookshelf(b, D.HALL_WEST - D.INNER_WALL / 2, F, 4.3, EAST, 1.8, 2.2, 120);
  });
  b.within('Reading room / Tables', () => {
    for (const x of [2.5, 5.2]) {
      table(b, x, F, 3.1, [2, 1]);
      for (const dx of [-0.5, 0.5]) {
        chair(b, x + dx, F, 2.4, NORTH);
        chair(b, x + dx, F, 3.8, SOUTH);
        deskLamp(b, x + dx * 0.9, F + 0.75, 3.1);
      }
      b.turnedBox('Paper, cream', [x - 0.1, F + 0.75, 2.8], [0.42, 0.015, 0.3], 0.2);
      b.turnedBox('Paper, blue', [x + 0.65, F + 0.75, 3.35], [0.2, 0.05, 0.28], -0.4);
    }
    armchair(b, 0.95, F, 1.2, 0.7, 'Wool, ochre');
  });
  b.within('Reading room / Pendants', () => {
    for (const x of [2.5, 5.2]) pendant(b, x, F + 1.95, 3.1, D.LOW_CEILING, 'Enamel, cream');
  });
}

function workshop(b: Builder): void {
  b.within('Workshop / Bench', () => {
    const put = placed(4, F, 11.3, NORTH);
    put(b, 'Oak joinery', [-2.6, 0.85, -0.36], [2.6, 0.92, 0.36]);
    for (const x of [-2.4, -0.8, 0.8, 2.4]) put(b, 'Walnut', [x - 0.05, 0, -0.3], [x + 0.05, 0.85, 0.3]);
    put(b, 'Walnut', [-2.4, 0.2, -0.28], [2.4, 0.23, 0.28]);
    for (let i = 0; i < 6; i += 1) wader(b, 2.2 + i * 0.55, F + 0.92, 11.35, 0.8 + 0.12 * (i % 3));
    put(b, 'Dark steel', [-2.2, 0.92, -0.2], [-2.05, 1.08, 0.05]);
    for (const x of [2.6, 4.2, 5.6]) stool(b, x, F, 10.6, 0.62);
  });
  b.within('Workshop / Tools', () => {
    const put = placed(D.HALL_WEST - D.INNER_WALL / 2, F, 8.4, EAST);
    put(b, 'Spruce lining', [-1.2, 0.95, 0], [1.2, 2.1, 0.02]);
    for (let i = 0; i < 14; i += 1) {
      const x = -1.05 + 0.16 * i;
      put(
        b,
        i % 3 === 0 ? 'Oak joinery' : 'Dark steel',
        [x, 1.15 + 0.1 * (i % 2), 0.02],
        [x + 0.035, 1.5 + 0.12 * (i % 4), 0.045],
      );
    }
    put(b, 'Oak joinery', [-1.2, 0, 0], [1.2, 0.86, 0.55]);
    put(b, 'Walnut', [-1.22, 0.86, 0], [1.22, 0.9, 0.58]);
  });
  b.within('Workshop / Table', () => {
    table(b, 3.6, F, 8.6, [2.2, 1.1]);
    b.lathe(
      'Paper, cream',
      [3.2, F + 0.75, 8.5],
      [
        [0.12, 0],
        [0.18, 0.08],
        [0.1, 0.2],
        [0, 0.22],
      ],
      12,
    );
    chair(b, 3.2, F, 7.8, NORTH);
    chair(b, 4.1, F, 9.4, SOUTH);
    for (const x of [2.6, 5]) pendant(b, x, F + 1.95, 8.6, D.LOW_CEILING);
  });
}

function cafe(b: Builder): void {
  b.within('Café / Counter', () => {
    counter(b, 20.6, 23.2, F, 3.9, 0.6, 1.05);
    b.box('Enamel, dark', [20.7, F, 5.25], [23.6, F + 0.9, 5.52], { bottom: true });
    for (const h of [1.45, 1.85]) b.box('Oak joinery', [20.7, F + h, 5.3], [23.6, F + h + 0.03, 5.52]);
    for (let i = 0; i < 12; i += 1) cup(b, 20.9 + i * 0.22, F + (i % 2 ? 1.48 : 1.88), 5.4);
    b.box('Dark steel', [21, F + 1.05, 4.05], [21.55, F + 1.45, 4.4]);
    b.lathe(
      'Brass',
      [22.6, F + 1.05, 4.2],
      [
        [0.1, 0],
        [0.12, 0.14],
        [0.06, 0.2],
        [0, 0.22],
      ],
      10,
    );
    for (const x of [20.9, 21.6, 22.3]) stool(b, x, F, 3.3);
  });
  b.within('Café / Tables', () => {
    for (const [x, z, t] of [
      [17.6, 1.5, 0.3],
      [17.6, 4.2, 1.1],
      [19.6, 2.6, 0.8],
      [22.4, 1.4, 2],
    ] as const) {
      roundTable(b, x, F, z);
      for (let k = 0; k < 3; k += 1) {
        const a = t + (k * 2 * Math.PI) / 3;
        chair(
          b,
          x + 0.62 * Math.sin(a),
          F,
          z + 0.62 * Math.cos(a),
          a + Math.PI,
          k === 1 ? 'Wool, ochre' : 'Wool, lagoon',
        );
      }
    }
  });
  b.within('Café / Pendants', () => {
    const under = D.DECK - D.DECK_THICKNESS;
    for (const x of [17.6, 19.6, 22.4]) pendant(b, x, F + 1.95, x === 19.6 ? 2.6 : 1.5, under, 'Enamel, cream');
    for (const x of [21.2, 22.4]) pendant(b, x, F + 1.95, 4.2, under);
  });
}

function gallery(b: Builder): void {
  b.within('Tide gallery / Tide table', () => tideTable(b, 19.8, F, 9.2));
  b.within('Tide gallery / Cases', () => {
    showcase(b, 17.4, F, 7, 'egg');
    showcase(b, 18.3, F, 11, 'bird');
    showcase(b, 22.6, F, 7.2, 'jar');
    showcase(b, 21.5, F, 11, 'bird');
  });
  b.within('Tide gallery / Pictures', () => {
    const wallSouth = D.GALLERY_NORTH + D.INNER_WALL / 2;
    for (const [i, x] of [17.6, 18.6, 20.9, 22.2].entries())
      picture(b, x, F + 1.65, wallSouth, NORTH, [i === 3 ? 1.4 : 0.8, 1.05], 20 + i);
    for (const [i, z] of [6.9, 10.4].entries())
      picture(b, D.HALL_EAST + D.INNER_WALL / 2, F + 1.7, z, -EAST, [1, 1.2], 30 + i);
  });
  b.within('Tide gallery / Benches', () => {
    bench(b, 22.2, F, 9.2, WEST, 1.9, 'Wool, ochre');
  });
  b.within('Tide gallery / Pendants', () => {
    for (const x of [18.6, 21]) for (const z of [7.6, 10.2]) pendant(b, x, F + 2.9, z, D.roofAt(z) - 0.2);
  });
}

function deck(b: Builder): void {
  b.within('Deck / Bench', () => {
    bench(b, 20, D.DECK, 2.2, SOUTH, 2.4, 'Wool, lagoon');
    table(b, 17.4, D.DECK, 4.7, [1.3, 0.6]);
    plant(b, 16.6, D.DECK, 0.8, 1, 9);
  });
  b.within('Deck / Pendants', () => {
    for (const x of [18.5, 21.5]) pendant(b, x, D.DECK + 2.05, 3.4, D.roofAt(3.4) - 0.2);
  });
}

export function rooms(b: Builder): void {
  hall(b);
  readingRoom(b);
  workshop(b);
  cafe(b);
  gallery(b);
  deck(b);
}
