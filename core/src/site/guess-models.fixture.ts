import {
  BoxGeometry,
  BufferGeometry,
  ConeGeometry,
  Float32BufferAttribute,
  Group,
  LatheGeometry,
  Mesh,
  Vector2,
} from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { STLExporter } from 'three/examples/jsm/exporters/STLExporter.js';
import type { UpAxis } from '../document/index.ts';

/** A model whose unit and up-axis are known, as text by three's exporters. */
export interface TrueModel {
  what: string;
  fileName: string;
  text: string;
  metresPerUnit: number;
  up: UpAxis;
}

type Random = () => number;
const within = (random: Random, low: number, high: number) => low + random() * (high - low);

type Piece = [name: string, geometry: BufferGeometry];

/** A box by its least and most corner, metres, y up. */
const box = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number) =>
  new BoxGeometry(x1 - x0, y1 - y0, z1 - z0).translate((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2);

/** Walls round a rectangle with a door in the south, as boxes. */
function walls(w: number, d: number, y: number, h: number, thick: number, door: number): Piece[] {
  const head = Math.min(h - 0.2, 2.1);
  return [
    ['North wall', box(0, y, 0, w, y + h, thick)],
    ['West wall', box(0, y, thick, thick, y + h, d)],
    ['East wall', box(w - thick, y, thick, w, y + h, d)],
    ['South wall', box(thick, y, d - thick, door, y + h, d)],
    ['South wall', box(door + 0.95, y, d - thick, w - thick, y + h, d)],
    ['Lintel', box(door, y + head, d - thick, door + 0.95, y + h, d)],
  ];
}

/** Land over squares. @param height metres, by column and row */
function surface(cells: number, cell: number, height: (column: number, row: number) => number): BufferGeometry {
  const geometry = new BufferGeometry();
  const corners: number[] = [];
  const at = (c: number, r: number) => [c * cell, height(c, r), r * cell];
  for (let r = 0; r < cells; r += 1)
    for (let c = 0; c < cells; c += 1)
      corners.push(
        ...at(c, r),
        ...at(c, r + 1),
        ...at(c + 1, r),
        ...at(c + 1, r),
        ...at(c, r + 1),
        ...at(c + 1, r + 1),
      );
  geometry.setAttribute('position', new Float32BufferAttribute(corners, 3));
  geometry.computeVertexNormals();
  return geometry;
}

const KINDS: Record<string, (random: Random) => Piece[]> = {
  house: (random) => {
    const [w, d, h, t] = [
      within(random, 7, 14),
      within(random, 6, 10),
      within(random, 2.5, 2.9),
      within(random, 0.2, 0.4),
    ];
    const storeys = random() < 0.5 ? 1 : 2;
    return [
      ['Slab', box(-0.3, -0.25, -0.3, w + 0.3, 0, d + 0.3)],
      ...Array.from({ length: storeys }, (_, n) => walls(w, d, n * (h + 0.25), h, t, 1 + n)).flat(),
      ...Array.from({ length: storeys }, (_, n): Piece => [
        'Floor',
        box(0, n * (h + 0.25) + h, 0, w, (n + 1) * (h + 0.25), d),
      ]),
      ['Partition', box(w / 2, 0, t, w / 2 + 0.12, h, d - t)],
      ['Chimney', box(1, storeys * (h + 0.25), 1, 1.6, storeys * (h + 0.25) + 1.4, 1.6)],
    ];
  },
  tower: (random) => {
    const [w, d, h] = [within(random, 18, 30), within(random, 16, 26), within(random, 3, 3.8)];
    const floors = 12 + Math.floor(random() * 14);
    return [
      ...Array.from({ length: floors }, (_, n): Piece => ['Plate', box(0, n * h - 0.3, 0, w, n * h, d)]),
      ...[0.5, w - 1].flatMap((x) =>
        [0.5, d - 1].map((z): Piece => ['Column', box(x, 0, z, x + 0.5, floors * h, z + 0.5)]),
      ),
      ['Core', box(w / 2 - 3, 0, d / 2 - 3, w / 2 + 3, floors * h + 3, d / 2 + 3)],
      // Stairs from the ground to the roof: something level at every height.
      ...Array.from({ length: floors * 18 }, (_, n): Piece => {
        const z = d / 2 - 2.5 + 0.28 * (n % 18);
        return ['Tread', box(w / 2 - 4.3, (n * h) / 18, z, w / 2 - 3, ((n + 1) * h) / 18, z + 0.28)];
      }),
    ];
  },
  room: (random) => {
    const [w, d, h] = [within(random, 3.5, 7), within(random, 3.5, 6), within(random, 2.4, 3)];
    return [
      ['Base', box(-0.2, -0.2, -0.2, w + 0.2, 0, d + 0.2)],
      ...walls(w, d, 0, h, 0.12, 1),
      ['Top', box(0, h, 0, w, h + 0.2, d)],
      ['Board', box(1, 0.72, 1, 2.6, 0.75, 1.9)],
      ...[1.05, 2.5].flatMap((x) => [1.05, 1.8].map((z): Piece => ['Leg', box(x, 0, z, x + 0.05, 0.72, z + 0.05)])),
      ['Block', box(w - 1, 0, 0.6, w - 0.4, 0.9, 2.4)],
    ];
  },
  product: (random) => {
    const [name, size] = (
      [
        ['Kettle', within(random, 0.18, 0.26)],
        ['Vase', within(random, 0.15, 0.5)],
        ['Mug', within(random, 0.08, 0.12)],
        ['Table lamp', within(random, 0.3, 0.6)],
        ['Ring', within(random, 0.018, 0.026)],
      ] as const
    )[Math.floor(random() * 5)]!;
    const profile = [
      [0, 0],
      [0.32, 0],
      [0.36, 0.1],
      [0.3, 0.5],
      [0.14, 0.8],
      [0.1, 0.95],
      [0, 1],
    ].map(([r, y]) => new Vector2(r! * size, y! * size));
    return [[`${name} body`, new LatheGeometry(profile, 32)]];
  },
  chair: (random) => {
    const [seat, back] = [within(random, 0.42, 0.48), within(random, 0.8, 1.05)];
    return [
      ['Chair seat', box(0, seat - 0.04, 0, 0.45, seat, 0.45)],
      ['Chair back', box(0, seat, 0, 0.45, back, 0.03)],
      ...[0, 0.41].flatMap((x) =>
        [0, 0.41].map((z): Piece => ['Chair leg', box(x, 0, z, x + 0.04, seat - 0.04, z + 0.04)]),
      ),
    ];
  },
  terrain: (random) => {
    const [cells, cell, steep] = [40, within(random, 5, 60), within(random, 0.2, 1.5)];
    const waves = Array.from({ length: 5 }, () => [
      random() * 0.3,
      random() * 0.3,
      random() * 6,
      random() * cell * steep,
    ]);
    const height = (c: number, r: number) =>
      waves.reduce((sum, [a, b, p, h]) => sum + h! * Math.sin(a! * c + b! * r + p!), 0);
    return [['Surface', surface(cells, cell, height)]];
  },
  village: (random) => {
    const [cells, cell] = [40, within(random, 7, 14)];
    const [a, b, c] = [within(random, 0.1, 0.3), within(random, 4, 16), within(random, 0.08, 0.2)];
    const height = (u: number, v: number) => cell * a * u + b * Math.sin(c * u) * Math.cos(c * v);
    const houses = 12 + Math.floor(random() * 20);
    return [
      ['Surface', surface(cells, cell, height)],
      ...Array.from({ length: houses }, (_, n): Piece[] => {
        const [u, v] = [12 + 3 * (n % 6) + random(), 12 + 3 * Math.floor(n / 6) + random()];
        const [x, z, y] = [u * cell, v * cell, height(u, v)];
        const [w, d, h] = [within(random, 8, 16), within(random, 8, 14), within(random, 4, 14)];
        const block = box(x, y - 4, z, x + w, y + h, z + d);
        if (random() < 0.5) return [['Block', block]];
        const roof = new ConeGeometry(0.72 * Math.max(w, d), 4, 4).rotateY(Math.PI / 4);
        return [
          ['Block', block],
          ['Roof', roof.translate(x + w / 2, y + h + 2, z + d / 2)],
        ];
      }).flat(),
    ];
  },
  rows: (random) => {
    // Narrow houses in rows, as far apart as storeys are high: from aside they look like floors of a tower.
    const [columns, lines] = [12 + Math.floor(random() * 10), 40 + Math.floor(random() * 20)];
    const [apart, aside] = [within(random, 2.9, 4.2), within(random, 8, 12)];
    const side = Math.max(columns * aside, lines * apart);
    const rise = within(random, 0.004, 0.009) * side;
    const height = (c: number, r: number) => (rise / 4) * (Math.sin(0.2 * c) + Math.cos(0.2 * r));
    return [
      ['Surface', surface(40, side / 38, height)],
      ...Array.from({ length: columns * lines }, (_, n): Piece => {
        const [x, z] = [5 + aside * (n % columns), 5 + apart * Math.floor(n / columns)];
        return ['Block', box(x, -rise, z, x + 0.7 * aside, within(random, 4, 10), z + 0.7 * apart)];
      }),
    ];
  },
};

const TRUE_UNITS = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048 } as const;

/** Eighty models: every kind in every unit with either axis up; STL and OBJ in turn, half of them without names. */
export function trueModels(random: Random): TrueModel[] {
  return Object.entries(KINDS).flatMap(([what, make], kind) =>
    Object.entries(TRUE_UNITS).flatMap(([unit, metresPerUnit], u) =>
      (['y', 'z'] as const).map((up, v): TrueModel => {
        const named = what === 'product' || what === 'chair' || (u + v) % 2 === 0;
        const group = new Group();
        for (const [i, [name, geometry]] of make(random).entries()) {
          const own = geometry.clone().scale(1 / metresPerUnit, 1 / metresPerUnit, 1 / metresPerUnit);
          if (up === 'z') own.rotateX(Math.PI / 2);
          const mesh = new Mesh(own);
          mesh.name = named ? name : `Mesh.${String(i).padStart(3, '0')}`;
          group.add(mesh);
        }
        group.updateMatrixWorld(true);
        // STL has no names: what is told by its name comes as OBJ.
        const stl = !named && (kind + u) % 2 === 0;
        return {
          what: `${what} in ${unit}, ${up} up`,
          fileName: `model-${kind}${u}${v}.${stl ? 'stl' : 'obj'}`,
          text: stl ? new STLExporter().parse(group) : new OBJExporter().parse(group),
          metresPerUnit,
          up,
        };
      }),
    ),
  );
}
