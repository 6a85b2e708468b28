import { seeded, type Builder, type MaterialName } from '../kit/index.ts';
import { placed } from './seating.ts';

export function table(
  b: Builder,
  x: number,
  y: number,
  z: number,
  size: readonly [number, number],
  turn = 0,
  top: MaterialName = 'Oak joinery',
): void {
  const put = placed(x, y, z, turn);
  const [w, d] = [size[0] / 2, size[1] / 2];
  put(b, top, [-w, 0.715, -d], [w, 0.75, d]);
  put(b, 'Walnut', [-w + 0.09, 0.64, -d + 0.09], [w - 0.09, 0.715, d - 0.09]);
  for (const sx of [-1, 1])
    for (const sz of [-1, 1])
      put(
        b,
        'Walnut',
        [sx * (w - 0.09) - 0.03, 0, sz * (d - 0.09) - 0.03],
        [sx * (w - 0.09) + 0.03, 0.64, sz * (d - 0.09) + 0.03],
      );
}

export function roundTable(b: Builder, x: number, y: number, z: number): void {
  b.lathe(
    'Oak joinery',
    [x, y, z],
    [
      [0, 0.71],
      [0.38, 0.71],
      [0.4, 0.725],
      [0.4, 0.74],
      [0, 0.74],
    ],
    18,
  );
  b.lathe(
    'Dark steel',
    [x, y, z],
    [
      [0.24, 0],
      [0.24, 0.02],
      [0.035, 0.05],
      [0.03, 0.71],
    ],
    12,
  );
  cup(b, x + 0.14, y + 0.74, z - 0.1);
  cup(b, x - 0.17, y + 0.74, z + 0.06);
  b.lathe(
    'Enamel, cream',
    [x, y + 0.74, z + 0.02],
    [
      [0.03, 0],
      [0.05, 0.06],
      [0.022, 0.13],
      [0.03, 0.16],
    ],
    8,
  );
}

export function cup(b: Builder, x: number, y: number, z: number): void {
  b.lathe(
    'Enamel, cream',
    [x, y, z],
    [
      [0.06, 0],
      [0.065, 0.012],
      [0.028, 0.014],
      [0.04, 0.075],
    ],
    8,
  );
}

/** A counter with a slatted front along x. */
export function counter(b: Builder, x0: number, x1: number, y: number, z: number, depth = 0.65, height = 1.02): void {
  b.box('Walnut', [x0, y, z], [x1, y + height - 0.05, z + depth], { bottom: true });
  b.box('Slate', [x0 - 0.03, y + height - 0.05, z - 0.04], [x1 + 0.03, y + height, z + depth + 0.06]);
  const slats = Math.floor((x1 - x0) / 0.11);
  for (let i = 0; i < slats; i += 1) {
    const x = x0 + ((x1 - x0) * (i + 0.5)) / slats;
    b.box('Oak joinery', [x - 0.03, y + 0.08, z + depth], [x + 0.03, y + height - 0.07, z + depth + 0.022], {
      bottom: true,
      top: true,
    });
  }
}

const COVERS: readonly MaterialName[] = [
  'Paper, red',
  'Paper, blue',
  'Paper, green',
  'Paper, cream',
  'Paper, ochre',
  'Walnut',
];

/** Open shelves full of books. Local x along the shelf; the back stands at local z = 0, the front looks to +z. */
export function bookshelf(
  b: Builder,
  x: number,
  y: number,
  z: number,
  turn: number,
  width: number,
  height: number,
  seed: number,
): void {
  const put = placed(x, y, z, turn);
  const random = seeded(seed);
  const depth = 0.3;
  put(b, 'Oak joinery', [-width / 2, 0, 0], [width / 2, height, 0.02]);
  for (const sx of [-1, 1])
    put(b, 'Oak joinery', [(sx * width) / 2 - 0.02, 0, 0], [(sx * width) / 2 + 0.02, height, depth]);
  const rows = Math.round(height / 0.36);
  for (let row = 0; row <= rows; row += 1) {
    const level = (row * (height - 0.03)) / rows;
    put(b, 'Oak joinery', [-width / 2, level, 0.02], [width / 2, level + 0.025, depth]);
    if (row === rows) break;
    for (let at = -width / 2 + 0.04; at < width / 2 - 0.12;) {
      // Books stand in small groups of one colour: fewer faces, and it is how shelves look from across a room.
      const run = 0.06 + 0.14 * random();
      const end = Math.min(at + run, width / 2 - 0.04);
      if (random() < 0.86)
        put(
          b,
          COVERS[Math.floor(random() * COVERS.length)]!,
          [at, level + 0.025, 0.05],
          [end - 0.006, level + 0.19 + 0.1 * random(), 0.2 + 0.06 * random()],
        );
      at = end;
    }
  }
}

/** A plinth with a glass case and something turned inside. */
export function showcase(b: Builder, x: number, y: number, z: number, kind: 'egg' | 'jar' | 'bird'): void {
  b.box('Walnut', [x - 0.3, y, z - 0.3], [x + 0.3, y + 0.85, z + 0.3], { bottom: true });
  const [low, high] = [y + 0.85, y + 1.4];
  const r = 0.28;
  const c = [
    [x - r, z - r],
    [x - r, z + r],
    [x + r, z + r],
    [x + r, z - r],
  ] as const;
  for (let k = 0; k < 4; k += 1) {
    const [p, q] = [c[k]!, c[(k + 1) % 4]!];
    b.face('Glass', [
      [p[0], low, p[1]],
      [q[0], low, q[1]],
      [q[0], high, q[1]],
      [p[0], high, p[1]],
    ]);
  }
  b.face('Glass', [
    [x - r, high, z - r],
    [x - r, high, z + r],
    [x + r, high, z + r],
    [x + r, high, z - r],
  ]);
  if (kind === 'egg')
    for (const dx of [-0.1, 0.04, 0.15])
      b.lathe(
        'Enamel, cream',
        [x + dx, low, z + dx / 3],
        [
          [0, 0],
          [0.035, 0.015],
          [0.045, 0.05],
          [0.03, 0.1],
          [0, 0.125],
        ],
        10,
      );
  else if (kind === 'jar')
    b.lathe(
      'Brass',
      [x, low, z],
      [
        [0.1, 0],
        [0.1, 0.03],
        [0.02, 0.06],
        [0.02, 0.22],
        [0.09, 0.3],
        [0.05, 0.36],
        [0, 0.37],
      ],
      12,
    );
  else wader(b, x, low, z);
}

/** A carved wading bird on two legs. */
export function wader(b: Builder, x: number, y: number, z: number, size = 1): void {
  for (const dx of [-0.02, 0.02])
    b.bar('Dark steel', [x + dx * size, y, z], [x + dx * size, y + 0.16 * size, z], 0.008, 0.008);
  b.lathe(
    'Paper, cream',
    [x, y + 0.14 * size, z],
    [
      [0, 0],
      [0.05 * size, 0.03 * size],
      [0.065 * size, 0.08 * size],
      [0.04 * size, 0.14 * size],
      [0.018 * size, 0.2 * size],
      [0.026 * size, 0.24 * size],
      [0, 0.28 * size],
    ],
    10,
  );
  b.bar('Dark steel', [x, y + 0.37 * size, z], [x + 0.13 * size, y + 0.34 * size, z], 0.008, 0.01);
}

/** The tide table: a relief of the marsh under the eyes of the visitors. */
export function tideTable(b: Builder, x: number, y: number, z: number): void {
  const [w, d] = [2.2, 1.3];
  b.box('Walnut', [x - w / 2 + 0.2, y, z - d / 2 + 0.2], [x + w / 2 - 0.2, y + 0.7, z + d / 2 - 0.2], { bottom: true });
  b.box('Oak joinery', [x - w / 2, y + 0.7, z - d / 2], [x + w / 2, y + 0.78, z + d / 2]);
  const [nx, nz] = [22, 12];
  const height = (u: number, v: number) => {
    const bend = 0.5 + 0.22 * Math.sin(u * 5.2) + 0.08 * Math.sin(u * 13);
    const channel = Math.exp(-(((v - bend) / 0.09) ** 2));
    return 0.045 + 0.02 * Math.sin(u * 9 + v * 4) * Math.sin(v * 7) - 0.05 * channel;
  };
  const at = (i: number, j: number): [number, number, number] => [
    x + (i / nx - 0.5) * (w - 0.12),
    y + 0.79 + Math.max(0.004, height(i / nx, j / nz)),
    z + (j / nz - 0.5) * (d - 0.12),
  ];
  for (let i = 0; i < nx; i += 1)
    for (let j = 0; j < nz; j += 1) {
      const mean = height((i + 0.5) / nx, (j + 0.5) / nz);
      b.face(
        mean < 0.012 ? 'Tidal water' : mean < 0.03 ? 'Tidal mud' : mean < 0.05 ? 'Marsh grass' : 'Marsh grass, dry',
        [at(i, j), at(i, j + 1), at(i + 1, j + 1), at(i + 1, j)],
      );
    }
}
