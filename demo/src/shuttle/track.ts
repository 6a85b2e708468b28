import { beside, stations, type Builder, type Station } from '../kit/index.ts';
import { groundAt } from '../site/terrain.ts';

/** The winding way of the shuttle: from the car park in the west, past the stop, round the hill. */
export const TRACK_WAY = [
  [-72, -34],
  [-50, -26],
  [-30, -30],
  [-14, -24],
  [2, -20.5],
  [14, -20.5],
  [26, -24],
  [38, -34],
  [46, -47],
  [58, -66],
  [76, -68],
  [90, -54],
  [92, -36],
] as const;

/** Metres between the rails' middles. */
const GAUGE = 1.1;
/** The rails lie this far above the ground, which they follow softly. */
const BED = 0.38;

/** Stations along the track, a sleeper apart. Its height is the ground's, averaged over a dozen metres. */
export const track = (): Station[] =>
  stations(TRACK_WAY, 1.1, (_, x, z) => {
    let sum = 0;
    for (let k = -2; k <= 2; k += 1) for (let l = -2; l <= 2; l += 1) sum += groundAt(x + 3 * k, z + 3 * l);
    return Math.max(0.05, sum / 25) + BED;
  });

/** Rails on sleepers on a low bank of gravel, and the stop's platform. */
export function buildTrack(b: Builder): void {
  const way = track();
  b.within('Shuttle / Track', () => {
    for (let i = 0; i + 1 < way.length; i += 1) {
      const [p, q] = [way[i]!, way[i + 1]!];
      b.bar('Larch cladding, grey', beside(p, -0.85, -0.09), beside(p, 0.85, -0.09), 0.22, 0.12);
      for (const side of [-1, 1])
        b.bar('Galvanised steel', beside(p, (side * GAUGE) / 2, 0.02), beside(q, (side * GAUGE) / 2, 0.02), 0.06, 0.1);
      if (i % 2 === 0) bank(b, p, way[Math.min(way.length - 1, i + 2)]!);
    }
  });
  b.within('Shuttle / Stop', () => {
    b.box('Granite, pale', [7, -0.2, -19.3], [17, 0.42, -17.6], { bottom: true });
    b.box('Granite', [7, -0.2, -17.6], [17, 0.21, -17.25], { bottom: true });
    for (const x of [8.4, 15.6]) b.box('Spruce frame', [x - 0.07, 0.42, -17.95], [x + 0.07, 2.9, -17.81]);
    b.bar('Zinc roof', [12, 2.98, -19.2], [12, 3.06, -17.5], 8.4, 0.06);
    b.box('Larch cladding', [10, 0.84, -18.1], [14, 0.89, -17.7]);
    for (const x of [10.2, 13.7]) b.box('Dark steel', [x, 0.42, -18.05], [x + 0.06, 0.84, -17.75]);
  });
}

function bank(b: Builder, p: Station, q: Station): void {
  const foot = (s: Station, side: number) => {
    const [x, , z] = beside(s, side * 1.9, 0);
    return [x, groundAt(x, z) - 0.1, z] as const;
  };
  for (const side of [-1, 1]) {
    const slope = [beside(p, side * 1, -0.12), beside(q, side * 1, -0.12), foot(q, side), foot(p, side)] as const;
    b.face('Shell gravel', side > 0 ? [...slope].reverse() : slope);
  }
  b.face('Shell gravel', [beside(p, -1, -0.12), beside(p, 1, -0.12), beside(q, 1, -0.12), beside(q, -1, -0.12)]);
}
