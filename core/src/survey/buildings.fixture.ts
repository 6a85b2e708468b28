import { PLAIN_MATERIAL, type SceneModel } from '../format/index.ts';
import { mendWinding } from '../format/winding.ts';
import { TRIANGLE } from '../geometry/index.ts';
import { box } from '../move/floor-scenes.fixture.ts';
import { randomFrom } from '../random.fixture.ts';

/** A building whose storeys, areas, voids and doors are known by how it was made. Metres, y up. */
export interface Building {
  name: string;
  triangles: number[];
  /** Floors from the lowest up, with the areas of their rooms. */
  storeys: { elevation: number; outside?: true; rooms: number[]; voids?: number[] }[];
  /** Ways through one door each, wide enough for the walker. */
  doors: { from: Point; to: Point }[];
  /** Places over which nobody can walk at this height. */
  nowhere: Point[];
}
type Point = [number, number, number];

/** Triangles of which nothing else is known. */
export const bare = (name: string, triangles: number[]): Building => ({
  name,
  triangles,
  storeys: [],
  doors: [],
  nowhere: [],
});

interface Door {
  /** Middle along the wall. */
  at: number;
  width: number;
  head: number;
}

/** Thickness of outer walls and partitions. */
const OUTER = 0.3;
const INNER = 0.12;
const SLAB = 0.25;

/** A wall from one end to another along x (`z` fixed) or z, thick to both sides of its middle line, with doors. */
function wall(
  along: 'x' | 'z',
  middle: number,
  [from, to]: [number, number],
  [y0, y1]: [number, number],
  thick: number,
  doors: readonly Door[] = [],
): number[] {
  const piece = (a: number, b: number, low: number, high: number) =>
    b - a < 1e-9 || high - low < 1e-9
      ? []
      : along === 'x'
        ? box(a, b, low, high, middle - thick / 2, middle + thick / 2)
        : box(middle - thick / 2, middle + thick / 2, low, high, a, b);
  const out: number[] = [];
  let start = from;
  for (const { at, width, head } of [...doors].sort((a, b) => a.at - b.at)) {
    out.push(...piece(start, at - width / 2, y0, y1), ...piece(at - width / 2, at + width / 2, y0 + head, y1));
    start = at + width / 2;
  }
  return [...out, ...piece(start, to, y0, y1)];
}

type Rect = [x0: number, z0: number, x1: number, z1: number];

/** Outer walls about a clear rectangle; a door in the wall at least z. */
const ring = ([x0, z0, x1, z1]: Rect, height: [number, number], door?: Door): number[] => [
  ...wall('x', z0 - OUTER / 2, [x0 - OUTER, x1 + OUTER], height, OUTER, door ? [door] : []),
  ...wall('x', z1 + OUTER / 2, [x0 - OUTER, x1 + OUTER], height, OUTER),
  ...wall('z', x0 - OUTER / 2, [z0, z1], height, OUTER),
  ...wall('z', x1 + OUTER / 2, [z0, z1], height, OUTER),
];

const outer = ([x0, z0, x1, z1]: Rect, by = OUTER): Rect => [x0 - by, z0 - by, x1 + by, z1 + by];

/** A slab whose top is at `y`, with a hole where one is given. */
function slab([x0, z0, x1, z1]: Rect, y: number, hole?: Rect, thick = SLAB): number[] {
  const part = (a: number, b: number, c: number, d: number) =>
    b - a < 1e-9 || d - c < 1e-9 ? [] : box(a, b, y - thick, y, c, d);
  if (!hole) return part(x0, x1, z0, z1);
  const [hx0, hz0, hx1, hz1] = hole;
  return [...part(x0, hx0, z0, z1), ...part(hx1, x1, z0, z1), ...part(hx0, hx1, z0, hz0), ...part(hx0, hx1, hz1, z1)];
}

/** Open ground around a house, as wide as `margin`. */
const ground = (house: Rect, y: number, margin = 5): number[] => slab(outer(house, margin + OUTER), y, outer(house));

const area = ([x0, z0, x1, z1]: Rect) => (x1 - x0) * (z1 - z0);

/** Door of a partition along z at x, from one side to the other. */
const through = (x: number, y: number, z: number): Building['doors'][number] => ({
  from: [x - 0.8, y, z],
  to: [x + 0.8, y, z],
});

/** A storey of two rooms: a partition along z at `x`, with a door. */
function twoRooms(plan: Rect, y: number, height: number, x: number, door: Door) {
  const [x0, z0, x1, z1] = plan;
  return {
    triangles: [...ring(plan, [y, y + height]), ...wall('z', x, [z0, z1], [y, y + height], INNER, [door])],
    rooms: [area([x0, z0, x - INNER / 2, z1]), area([x + INNER / 2, z0, x1, z1])],
    door: through(x, y, door.at),
  };
}

const NARROW: Door = { at: 2.2, width: 0.5, head: 2.02 };
const USUAL: Door = { at: 2.2, width: 0.9, head: 2.1 };

/** One storey of two rooms on open ground. */
export function plain(name: string, { height = 2.6, door = USUAL, plinth = 0.15 } = {}): Building {
  const plan: Rect = [0, 0, 8, 5];
  const { triangles, rooms, door: way } = twoRooms(plan, 0, height, 3.3, door);
  return {
    name,
    triangles: [
      ...triangles,
      ...slab(outer(plan), 0),
      ...slab(outer(plan), height + SLAB),
      ...ground(plan, -plinth),
      // Furniture: a table, a wardrobe on feet, a shelf on the wall, a low lamp.
      ...box(5, 6.6, 0.7, 0.75, 2, 3),
      ...box(7.4, 8, 0.08, 2.0, 3, 5),
      ...box(0, 0.35, 1.4, 1.45, 0.5, 2.5),
      ...box(5.6, 5.8, 1.7, 1.9, 2.4, 2.6),
    ],
    storeys: [
      ...(plinth >= 0.3 ? [{ elevation: -plinth, outside: true as const, rooms: [] }] : []),
      { elevation: 0, rooms },
    ],
    doors: [way],
    nowhere: [],
  };
}

/** Halves that are half a storey apart; each has its own part of the plan. */
function splitLevel(name: string, half: number): Building {
  const left: Rect = [0, 0, 5, 6];
  const right: Rect = [5 + OUTER, 0, 10 + OUTER, 6];
  const whole: Rect = [0, 0, 10 + OUTER, 6];
  const storey = 2 * half;
  const triangles = [
    ...ring(whole, [-SLAB, 3 * half + 2.6]),
    ...slab(outer(whole), 3 * half + 2.6 + SLAB),
    ...ground(whole, -0.15),
  ];
  const steps = Math.ceil(half / 0.17);
  const well: Rect = [5 - 0.27 * steps, 2.45, 5, 3.55];
  const storeys: Building['storeys'] = [];
  for (const [plan, floors] of [
    [left, [0, storey]],
    [right, [half, storey + half]],
  ] as const)
    for (const y of floors) {
      // The floor over the flight is open.
      const hole = plan === left && y > 0 ? well : undefined;
      triangles.push(...slab(plan, y, hole));
      storeys.push({ elevation: y, rooms: [area(plan) - (hole ? area(hole) : 0)], voids: hole ? [area(hole)] : [] });
    }
  // The wall between the halves, and a flight up to a door in it.
  const flight = { at: 3, width: 1.1, head: SLAB + half + 2.1 };
  triangles.push(
    ...wall('z', 5 + OUTER / 2, [0, 6], [-SLAB, 3 * half + 2.6], OUTER, [flight]),
    ...box(5, 5 + OUTER, 0, half, 2.45, 3.55),
  );
  for (let n = 1; n < steps; n += 1)
    triangles.push(...box(5 - 0.27 * (steps - n), 5, (half * (n - 1)) / steps, (half * n) / steps, 2.45, 3.55));
  storeys.sort((a, b) => a.elevation - b.elevation);
  return { name, triangles, storeys, doors: [{ from: [1, 0, 3], to: [7, half, 3] }], nowhere: [] };
}

/** A cellar, a floor above it, and the ground outside between the two. */
function cellar(name: string, { depth, out, above }: { depth: number; out: number; above: number }): Building {
  const plan: Rect = [0, 0, 9, 6];
  const below = twoRooms(plan, -depth, depth + above - SLAB, 4, { ...USUAL, head: 1.95 });
  const main = twoRooms(plan, above, 2.6, 5, USUAL);
  return {
    name,
    triangles: [
      ...below.triangles,
      ...main.triangles,
      ...slab(outer(plan), -depth),
      ...slab(outer(plan), above),
      ...slab(outer(plan), above + 2.6 + SLAB),
      ...ground(plan, out),
    ],
    storeys: [
      { elevation: -depth, rooms: below.rooms },
      { elevation: out, outside: true, rooms: [] },
      { elevation: above, rooms: main.rooms },
    ],
    doors: [below.door, main.door],
    nowhere: [],
  };
}

/** A hall over two storeys with a gallery along one wall, or all round. */
function gallery(name: string, hole: Rect, railing: boolean): Building {
  const plan: Rect = [0, 0, 10, 8];
  const level = 3;
  const [hx0, hz0, hx1, hz1] = hole;
  const rail = (a: number, b: number, c: number, d: number) => (railing ? box(a, b, level, level + 1, c, d) : []);
  return {
    name,
    triangles: [
      ...ring(plan, [0, 5.8], { at: 5, width: 1.2, head: 2.2 }),
      ...slab(outer(plan), 0),
      ...slab(outer(plan), 5.8 + SLAB),
      ...slab(plan, level, hole),
      ...ground(plan, -0.15),
      ...(hz0 > plan[1] ? rail(hx0, hx1, hz0 - 0.05, hz0) : []),
      ...(hz1 < plan[3] ? rail(hx0, hx1, hz1, hz1 + 0.05) : []),
      ...(hx0 > plan[0] ? rail(hx0 - 0.05, hx0, hz0, hz1) : []),
      ...(hx1 < plan[2] ? rail(hx1, hx1 + 0.05, hz0, hz1) : []),
    ],
    storeys: [
      { elevation: 0, rooms: [area(plan)] },
      { elevation: level, rooms: [area(plan) - area(hole)], voids: [area(hole)] },
    ],
    doors: [{ from: [5, 0, 1], to: [5, -0.15, -1.5] }],
    nowhere: [
      [(hx0 + hx1) / 2, level, (hz0 + hz1) / 2],
      [hx0 + 0.4, level, hz0 + 0.4],
      [hx1 - 0.4, level, hz1 - 0.4],
    ],
  };
}

/** A roof that slopes both ways from a ridge along x, as a body of some thickness or as a sheet. */
function roof([x0, z0, x1, z1]: Rect, eaves: number, pitch: number, thick: number): number[] {
  const slope = Math.tan((pitch * Math.PI) / 180);
  const middle = (z0 + z1) / 2;
  const out: number[] = [];
  const quad = (a: Point, b: Point, c: Point, d: Point) => out.push(...a, ...b, ...c, ...a, ...c, ...d);
  for (const [from, to] of [
    [z0, middle],
    [middle, z1],
  ] as const) {
    const y = (z: number) => eaves + slope * Math.min(z - z0, z1 - z);
    const under: [Point, Point, Point, Point] = [
      [x0, y(from), from],
      [x1, y(from), from],
      [x1, y(to), to],
      [x0, y(to), to],
    ];
    quad(...under);
    if (thick === 0) continue;
    const [a, b, c, d] = under.map(([x, h, z]): Point => [x, h + thick, z]) as typeof under;
    quad(d, c, b, a);
    const corners = [a, b, c, d];
    under.forEach((p, i) => quad(p, corners[i]!, corners[(i + 1) % 4]!, under[(i + 1) % 4]!));
  }
  return out;
}

/** Least head room that counts as floor area: DIN 277 and most areas of dwellings leave out what is lower; here 1.9 m. */
const HEAD = 1.9;

/** A storey with an attic above it; `knee` is the height of the roof's underside at the eaves over the attic's floor. */
function attic(name: string, { knee, pitch, thick }: { knee: number; pitch: number; thick: number }): Building {
  const plan: Rect = [0, 0, 9, 7];
  const [x0, z0, x1, z1] = plan;
  const main = twoRooms(plan, 0, 2.6, 4, USUAL);
  const floor = 2.6 + SLAB;
  const off = Math.max(0, HEAD - knee) / Math.tan((pitch * Math.PI) / 180);
  const gable = (x: number): number[] => {
    // A wall whose top follows the roof: two boxes' worth of triangles, closed.
    const top = knee + Math.tan((pitch * Math.PI) / 180) * ((z1 - z0) / 2);
    const [a, b] = [x, x + OUTER];
    const shape: [number, number][] = [
      [floor, z0],
      [floor + knee, z0],
      [floor + top, (z0 + z1) / 2],
      [floor + knee, z1],
      [floor, z1],
    ];
    const out: number[] = [];
    for (let i = 1; i < 4; i += 1)
      for (const [at, order] of [
        [a, [0, i, i + 1]],
        [b, [0, i + 1, i]],
      ] as const)
        out.push(...order.flatMap((k) => [at, shape[k]![0], shape[k]![1]]));
    shape.forEach(([y, z], i) => {
      const [ny, nz] = shape[(i + 1) % shape.length]!;
      out.push(a, y, z, b, y, z, b, ny, nz, a, y, z, b, ny, nz, a, ny, nz);
    });
    return out;
  };
  return {
    name,
    triangles: [
      ...main.triangles,
      ...slab(outer(plan), 0),
      ...slab(outer(plan), floor),
      ...wall('x', z0 - OUTER / 2, [x0 - OUTER, x1 + OUTER], [floor, floor + knee], OUTER),
      ...wall('x', z1 + OUTER / 2, [x0 - OUTER, x1 + OUTER], [floor, floor + knee], OUTER),
      ...gable(x0 - OUTER),
      ...gable(x1),
      ...roof([x0 - OUTER, z0, x1 + OUTER, z1], floor + knee, pitch, thick),
      ...ground(plan, -0.15),
    ],
    storeys: [
      { elevation: 0, rooms: main.rooms },
      { elevation: floor, rooms: [(x1 - x0) * (z1 - z0 - 2 * off)] },
    ],
    doors: [main.door],
    nowhere: [],
  };
}

/** A corridor with rooms on both sides. */
function corridor(name: string, door: Door, height: number): Building {
  const plan: Rect = [0, 0, 12, 8];
  const [low, high] = [3.2, 4.8];
  const doors = (xs: readonly number[]) => xs.map((at) => ({ ...door, at }));
  return {
    name,
    triangles: [
      ...ring(plan, [0, height]),
      ...slab(outer(plan), 0),
      ...slab(outer(plan), height + SLAB),
      ...ground(plan, -0.5),
      ...wall('x', low - INNER / 2, [0, 12], [0, height], INNER, doors([2, 6, 10])),
      ...wall('x', high + INNER / 2, [0, 12], [0, height], INNER, doors([3, 9])),
      ...[4, 8].flatMap((x) => wall('z', x, [0, low - INNER], [0, height], INNER)),
      ...wall('z', 6, [high + INNER, 8], [0, height], INNER),
    ],
    storeys: [
      { elevation: -0.5, outside: true, rooms: [] },
      {
        elevation: 0,
        rooms: [
          area([0, low, 12, high]),
          area([0, 0, 4 - INNER / 2, low - INNER]),
          area([4 + INNER / 2, 0, 8 - INNER / 2, low - INNER]),
          area([8 + INNER / 2, 0, 12, low - INNER]),
          area([0, high + INNER, 6 - INNER / 2, 8]),
          area([6 + INNER / 2, high + INNER, 12, 8]),
        ],
      },
    ],
    doors: [2, 6, 10]
      .map((x): Building['doors'][number] => ({ from: [x, 0, low - 0.9], to: [x, 0, low + 0.8] }))
      .concat([3, 9].map((x) => ({ from: [x, 0, high + 0.9], to: [x, 0, high - 0.8] }))),
    nowhere: [],
  };
}

/** Storeys above each other, each with a stair well beside its two rooms' wall. */
function tower(name: string, count: number): Building {
  const plan: Rect = [0, 0, 8, 6];
  const well: Rect = [6.6, 0, 8, 3];
  const triangles = [...ground(plan, -0.15)];
  const storeys: Building['storeys'] = [];
  const doors: Building['doors'] = [];
  for (let n = 0; n < count; n += 1) {
    const y = 3 * n;
    const { triangles: more, rooms, door } = twoRooms(plan, y, 3 - SLAB, 3.5, NARROW);
    triangles.push(...more, ...slab(outer(plan), y, n > 0 ? well : undefined));
    storeys.push({
      elevation: y,
      rooms: n > 0 ? [rooms[0]!, rooms[1]! - area(well)] : rooms,
      ...(n > 0 ? { voids: [area(well)] } : {}),
    });
    doors.push(door);
  }
  triangles.push(...slab(outer(plan), 3 * count));
  return { name, triangles, storeys, doors, nowhere: count > 1 ? [[7.3, 3, 1.5]] : [] };
}

/** Turned about the vertical and moved. */
export function moved(building: Building, degrees: number, [dx, dz]: [number, number] = [0, 0]): Building {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const at = ([x, y, z]: Point): Point => [x * c + z * s + dx, y, z * c - x * s + dz];
  const triangles: number[] = [];
  for (let k = 0; k < building.triangles.length; k += 3)
    triangles.push(...at(building.triangles.slice(k, k + 3) as Point));
  return {
    ...building,
    triangles,
    doors: building.doors.map(({ from, to }) => ({ from: at(from), to: at(to) })),
    nowhere: building.nowhere.map(at),
  };
}

/** With some faces turned the other way round: all, or each by chance. */
function wound(building: Building, share: number): Building {
  const random = randomFrom(5);
  const triangles = building.triangles.slice();
  for (let o = 0; o < triangles.length; o += TRIANGLE)
    if (random() < share)
      for (let k = 0; k < 3; k += 1)
        [triangles[o + 3 + k], triangles[o + 6 + k]] = [triangles[o + 6 + k]!, triangles[o + 3 + k]!];
  return { ...building, triangles };
}

/** As 32-bit numbers of millimetres, brought back to metres. */
const inMillimetres = (building: Building): Building => ({
  ...building,
  triangles: building.triangles.map((value) => Math.fround(value * 1000) / 1000),
});

const SIDE: Rect = [0, 3, 10, 8];
const MIDDLE: Rect = [2, 2, 8, 6];

export const BUILDINGS: readonly Building[] = [
  plain('a house of two rooms'),
  wound(plain('a house inside out'), 1),
  wound(plain('a house with faces either way', { plinth: 0.6 }), 0.5),
  inMillimetres(moved(plain('a house in millimetres', { door: NARROW }), 0, [1.234, 5.678])),
  moved(plain('a turned house', { plinth: 0.45 }), 17),
  splitLevel('half storeys of 1.4 m', 1.4),
  moved(splitLevel('turned half storeys of 1.5 m', 1.5), 30),
  cellar('a cellar under a raised floor', { depth: 2.1, out: -0.6, above: 0.5 }),
  moved(cellar('a turned cellar, the ground near the floor', { depth: 2.6, out: -0.3, above: 0 }), 45),
  gallery('a gallery along a hall', SIDE, true),
  gallery('a gallery without a railing', SIDE, false),
  moved(gallery('a gallery round a void', MIDDLE, true), 23),
  attic('an attic of 45°', { knee: 0.9, pitch: 45, thick: 0.3 }),
  attic('a steep attic under a sheet', { knee: 0.4, pitch: 55, thick: 0 }),
  moved(attic('a turned attic of 35°', { knee: 1.1, pitch: 35, thick: 0.2 }), 12),
  plain('low rooms', { height: 2.12, door: { at: 2.2, width: 0.8, head: 1.95 } }),
  plain('doors nearly to the ceiling', { height: 2.6, door: { at: 2.2, width: 0.9, head: 2.52 } }),
  corridor('a corridor with doors as wide as the walker', { ...NARROW, head: 1.95 }, 2.2),
  moved(corridor('a turned corridor', { ...USUAL, head: 2.2 }, 2.45), 33),
  tower('a tower with a stair well', 5),
];

export const modelOfBuilding = ({ triangles }: Building, move: Point = [0, 0, 0]): SceneModel => {
  const positions = Float32Array.from(triangles, (value, k) => value + move[k % 3]!);
  return {
    parts: [
      mendWinding({
        name: 'Building',
        material: 0,
        positions,
        normals: new Float32Array(positions.length),
        uvs: null,
        light: null,
        indices: Uint32Array.from({ length: positions.length / 3 }, (_, i) => i),
      }),
    ],
    materials: [PLAIN_MATERIAL],
    textures: [],
  };
};
