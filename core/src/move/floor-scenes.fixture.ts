import type { Path, Walk } from '../document/index.ts';
import { DEFAULT_LENS } from '../document/index.ts';
import { Footing, walkableTriangles } from '../survey/index.ts';
import { TRIANGLE, triangleNormal } from '../geometry/index.ts';

/** Floors whose height is known everywhere by formula, and what is wrong with the way over them. */
export interface FloorScene {
  name: string;
  footing: Footing;
  /** x, y, z of the nodes; corners unless told otherwise. */
  nodes: [number, number, number][];
  smooth?: boolean;
  /** Height of the floor that a walker means at (x, z); null where there is none. */
  height: (x: number, z: number, station: number) => number | null;
  /** What the checks must say, in the order of the way. */
  findings: { rule: string; size?: number }[];
}

/** A level rectangle, seen from above. */
export const slab = (x0: number, x1: number, z0: number, z1: number, y: number): number[] => [
  ...[x0, y, z0, x0, y, z1, x1, y, z1],
  ...[x0, y, z0, x1, y, z1, x1, y, z0],
];

/** A closed box: its top can be stood on, its sides stop a walker. */
export function box(x0: number, x1: number, y0: number, y1: number, z0: number, z1: number): number[] {
  const side = (a: number[], b: number[]) => [...a, ...b, b[0]!, y1, b[2]!, ...a, b[0]!, y1, b[2]!, a[0]!, y1, a[2]!];
  const [a, b, c, d] = [
    [x0, y0, z1],
    [x1, y0, z1],
    [x1, y0, z0],
    [x0, y0, z0],
  ] as const;
  const under = slab(x0, x1, z0, z1, y0);
  for (let o = 0; o < under.length; o += 9)
    for (let k = 0; k < 3; k += 1) [under[o + 3 + k], under[o + 6 + k]] = [under[o + 6 + k]!, under[o + 3 + k]!];
  return [
    ...slab(x0, x1, z0, z1, y1),
    ...under,
    ...side([...a], [...b]),
    ...side([...b], [...c]),
    ...side([...c], [...d]),
    ...side([...d], [...a]),
  ];
}

export function footingFrom(triangles: readonly number[]): Footing {
  const soup = Float32Array.from(triangles);
  const walkable = walkableTriangles(soup);
  const normal = new Float64Array(3);
  const others: number[] = [];
  for (let i = 0; i < soup.length / TRIANGLE; i += 1) {
    triangleNormal(soup, i, normal);
    if (normal[1]! <= Math.SQRT1_2 * Math.hypot(normal[0]!, normal[1]!, normal[2]!))
      others.push(...soup.subarray(i * TRIANGLE, (i + 1) * TRIANGLE));
  }
  return new Footing(walkable, Float32Array.from(others));
}

export function walkThrough(nodes: readonly (readonly [number, number, number])[], smooth = false): Walk {
  return {
    kind: 'walk',
    path: {
      closed: false,
      nodes: nodes.map(([x, y, z], i) => ({
        id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
        x,
        y,
        z,
        surface: true as const,
        kind: smooth ? 'smooth' : 'corner',
        radius: 0.3,
      })),
    },
    eyeHeight: 1.6,
    pace: { by: 'speed', speed: 1, duration: 1, shape: 'constant' },
    gaze: { kind: 'ahead', distance: 2 },
    lens: DEFAULT_LENS,
  };
}

/** An ordinary walk along a path. */
export const walkAlong = (path: Path, change: Partial<Walk> = {}): Walk => ({
  kind: 'walk',
  path,
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: DEFAULT_LENS,
  ...change,
});

type Random = () => number;
const within = (random: Random, low: number, high: number) => low + random() * (high - low);
const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** A solid flight that rises along +x from x0: its last nosing is the edge of the floor above. */
function flight(x0: number, y0: number, z0: number, z1: number, riser: number, going: number, count: number): number[] {
  return Array.from({ length: count - 1 }, (_, n) =>
    box(x0 + n * going, x0 + (n + 1) * going, y0 - 0.05, y0 + (n + 1) * riser, z0, z1),
  ).flat();
}
const onFlight = (x: number, x0: number, riser: number, going: number, count: number) =>
  Math.min(count, Math.max(0, Math.floor((x - x0) / going) + 1)) * riser;

export const SCENES: Record<string, (random: Random) => Omit<FloorScene, 'name'>> = {
  'a straight flight': (random) => {
    const [riser, going] = [within(random, 0.14, 0.2), within(random, 0.24, 0.32)];
    const count = 4 + Math.floor(random() * 14);
    const [start, top] = [-within(random, 2, 4), (count - 1) * going];
    return {
      footing: footingFrom([
        ...box(-8, 0, -0.3, 0, -2, 2),
        ...flight(0, 0, -1, 1, riser, going, count),
        ...box(top, top + 8, count * riser - 0.25, count * riser, -2, 2),
      ]),
      nodes: [
        [start, 0, 0],
        [top + within(random, 2, 4), count * riser, 0],
      ],
      height: (x) => onFlight(x, 0, riser, going, count),
      findings: [],
    };
  },
  'a dog-leg between two storeys': (random) => {
    const [riser, going] = [within(random, 0.15, 0.18), within(random, 0.26, 0.3)];
    const count = 9;
    const [half, landing] = [count * riser, (count - 1) * going];
    const total = 2 * half;
    // The second flight comes back over the floor, beside the first.
    const second = Array.from({ length: count - 1 }, (_, n) =>
      box(landing - (n + 1) * going, landing - n * going, half - 0.05, half + (n + 1) * riser, 1.1, 2.2),
    ).flat();
    const nodes: [number, number, number][] = [
      [-within(random, 2, 3), 0, 0.5],
      [landing + 0.6, half, 0.5],
      [landing + 0.6, half, 1.65],
      [landing - (count - 1) * going - within(random, 1.5, 3), total, 1.65],
    ];
    return {
      footing: footingFrom([
        ...box(-6, landing + 3, -0.3, 0, -2, 4),
        ...flight(0, 0, 0, 1, riser, going, count),
        ...box(landing, landing + 1.2, half - 0.2, half, 0, 2.2),
        ...second,
        // The upper storey lies over the foot of the stair.
        ...box(-6, 0, total - 0.25, total, 1.05, 4),
      ]),
      nodes,
      height: (x, z) =>
        z < 1.05
          ? onFlight(x, 0, riser, going, count)
          : x >= landing
            ? half
            : half + Math.min(count, Math.floor((landing - x) / going) + 1) * riser,
      findings: [],
    };
  },
  'a spiral stair': (random) => {
    const riser = within(random, 0.17, 0.2);
    const count = 16;
    const step = (2 * Math.PI * 0.8) / count;
    const [inner, outer, lead] = [0.3, 1.9, 0.6];
    const top = count * riser;
    const sector = (a: number, b: number, y: number) => {
      const p = (angle: number, r: number) => [r * Math.cos(angle), y, r * Math.sin(angle)];
      // Turning from x to z, seen from above, is clockwise: this order faces up.
      return [...p(a, inner), ...p(b, outer), ...p(a, outer), ...p(a, inner), ...p(b, inner), ...p(b, outer)];
    };
    const treads = Array.from({ length: count - 1 }, (_, n) =>
      sector(n * step, (n + 1) * step, (n + 1) * riser),
    ).flat();
    const pieces = (from: number, to: number, y: number) =>
      Array.from({ length: 6 }, (_, n) =>
        sector(from + ((to - from) * n) / 6, from + ((to - from) * (n + 1)) / 6, y),
      ).flat();
    const end = (count - 1) * step;
    const r = within(random, 1, 1.2);
    return {
      footing: footingFrom([...treads, ...pieces(-lead, 0, 0), ...pieces(end, end + lead, top)]),
      smooth: true,
      nodes: Array.from({ length: 25 }, (_, i): [number, number, number] => {
        const angle = -lead * 0.9 + ((end + 1.8 * lead) * i) / 24;
        return [
          r * Math.cos(angle),
          angle < 0 ? 0 : Math.min(count, Math.floor(angle / step) + 1) * riser,
          r * Math.sin(angle),
        ];
      }),
      height: (x, z) => {
        let angle = Math.atan2(z, x);
        if (angle < -lead - 0.05) angle += 2 * Math.PI;
        return angle < 0 ? 0 : Math.min(count, Math.floor(angle / step) + 1) * riser;
      },
      findings: [],
    };
  },
  'boards with joints over beams': (random) => {
    const [joint, board] = [pick(random, [0.006, 0.01]), within(random, 0.12, 0.16)];
    const boards: number[] = [];
    for (let x = -5; x < 5; x += board + joint) boards.push(...box(x, x + board, 0.37, 0.4, -0.8, 0.8));
    return {
      footing: footingFrom([
        ...boards,
        ...box(-6, 6, 0.22, 0.37, -0.1, 0.1),
        ...box(-6, 6, 0.22, 0.37, 0.5, 0.6),
        ...slab(-20, 20, -20, 20, 0),
      ]),
      nodes: [
        [-within(random, 3, 4.5), 0.4, within(random, -0.3, 0.3)],
        [within(random, 3, 4.5), 0.4, within(random, -0.3, 0.3)],
      ],
      height: () => 0.4,
      findings: [],
    };
  },
  'a void in an upper floor': (random) => {
    const width = within(random, 1, 4);
    const [up, start] = [within(random, 2.8, 3.4), within(random, -0.5, 0.5)];
    return {
      footing: footingFrom([
        ...box(-10, 10, -0.3, 0, -6, 6),
        ...box(-10, start, up - 0.25, up, -6, 6),
        ...box(start + width, 10, up - 0.25, up, -6, 6),
      ]),
      nodes: [
        [-within(random, 3, 5), up, 0],
        [within(random, 5, 8), up, 0],
      ],
      height: (x) => (x > start && x < start + width ? null : up),
      findings: [{ rule: 'no floor', size: width }],
    };
  },
  'a step at the entrance': (random) => {
    const rise = pick(random, [0.17, 0.25, 0.26, 0.31]);
    const at = within(random, -0.5, 0.5);
    return {
      footing: footingFrom([...slab(-20, 20, -20, 20, 0), ...box(at, 12, -0.1, rise, -4, 4)]),
      nodes: [
        [-within(random, 3, 5), 0, 0],
        [within(random, 3, 5), rise, 1],
      ],
      height: (x) => (x < at ? 0 : rise),
      findings: rise > 0.25 ? [{ rule: 'step', size: rise }] : [],
    };
  },
  'one of two floors above each other': (random) => {
    const up = within(random, 2.6, 4);
    const y = random() < 0.5 ? 0 : up;
    return {
      footing: footingFrom([...box(-9, 9, -0.3, 0, -9, 9), ...box(-9, 9, up - 0.3, up, -9, 9)]),
      nodes: [
        [-6, y, within(random, -3, 3)],
        [0, y, within(random, -3, 3)],
        [6, y, within(random, -3, 3)],
      ],
      height: () => y,
      findings: [],
    };
  },
  'a table in the way': (random) => {
    const [at, wide, high] = [within(random, -1, 1), within(random, 0.7, 1.6), within(random, 0.6, 0.9)];
    return {
      footing: footingFrom([
        ...box(-9, 9, -0.3, 0, -4, 4),
        ...box(at, at + wide, high - 0.35, high, -1, 1),
        ...box(-9, 9, 2.8, 3, -4, 4),
      ]),
      nodes: [
        [-5, 0, 0],
        [5, 0, 0.3],
      ],
      height: () => 0,
      findings: [{ rule: 'low' }],
    };
  },
  'a slab over the ground': (random) => {
    const rise = within(random, 0.45, 0.7);
    return {
      footing: footingFrom([...slab(-20, 20, -20, 20, 0), ...box(0, 10, rise - 0.15, rise, -5, 5)]),
      nodes: [
        [-4, 0, 0],
        [within(random, 5, 8), rise, 0],
      ],
      height: (x) => (x < 0 ? 0 : rise),
      findings: [{ rule: 'step', size: rise }],
    };
  },
  'a low beam': (random) => {
    const free = within(random, 1.62, 1.8);
    return {
      footing: footingFrom([...box(-9, 9, -0.3, 0, -4, 4), ...box(0, 0.3, free, 2.6, -4, 4)]),
      nodes: [
        [-4, 0, 0],
        [4, 0, 0],
      ],
      height: () => 0,
      findings: [{ rule: 'headroom', size: free }],
    };
  },
};
