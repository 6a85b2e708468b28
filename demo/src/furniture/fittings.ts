import { seeded, type Builder, type MaterialName, type Point } from '../kit/index.ts';
import { placed } from './seating.ts';

/** A dome lamp on a cord. `y` is the height of its lower rim. */
export function pendant(
  b: Builder,
  x: number,
  y: number,
  z: number,
  ceiling: number,
  shade: MaterialName = 'Enamel, dark',
): void {
  b.box('Dark steel', [x - 0.006, y + 0.2, z - 0.006], [x + 0.006, ceiling, z + 0.006], { bottom: true, top: true });
  b.lathe(
    shade,
    [x, y, z],
    [
      [0.23, 0],
      [0.21, 0.07],
      [0.13, 0.15],
      [0.04, 0.19],
      [0.02, 0.24],
      [0, 0.24],
    ],
    14,
  );
  b.lathe(
    'Linen white',
    [x, y, z],
    [
      [0.035, 0.165],
      [0.12, 0.13],
      [0.2, 0.06],
      [0.225, 0],
    ].map(([r, h]) => [r!, h!] as const),
    14,
  );
  b.lathe(
    'Lamp glow',
    [x, y + 0.05, z],
    [
      [0, 0],
      [0.055, 0.025],
      [0.065, 0.06],
      [0.03, 0.11],
      [0, 0.11],
    ],
    10,
  );
}

export function deskLamp(b: Builder, x: number, y: number, z: number): void {
  b.lathe(
    'Brass',
    [x, y, z],
    [
      [0.08, 0],
      [0.08, 0.015],
      [0.012, 0.03],
      [0.012, 0.34],
    ],
    8,
  );
  b.lathe(
    'Linen white',
    [x, y + 0.3, z],
    [
      [0.14, 0],
      [0.08, 0.14],
    ],
    10,
  );
  b.lathe(
    'Lamp glow',
    [x, y + 0.31, z],
    [
      [0, 0],
      [0.035, 0.03],
      [0, 0.07],
    ],
    8,
  );
}

/** A framed picture of the marsh, painted in bands. Hangs with its back on local z = 0, looking to +z. */
export function picture(
  b: Builder,
  x: number,
  y: number,
  z: number,
  turn: number,
  size: readonly [number, number],
  seed: number,
): void {
  const put = placed(x, y, z, turn);
  const random = seeded(seed);
  const [w, h] = size;
  const f = 0.035;
  put(b, 'Walnut', [-w / 2, -h / 2, 0.005], [w / 2, -h / 2 + f, 0.04]);
  put(b, 'Walnut', [-w / 2, h / 2 - f, 0.005], [w / 2, h / 2, 0.04]);
  for (const sx of [-1, 1]) put(b, 'Walnut', [(sx * w) / 2, -h / 2 + f, 0.005], [sx * (w / 2 - f), h / 2 - f, 0.04]);
  put(b, 'Linen white', [-w / 2 + f, -h / 2 + f, 0.004], [w / 2 - f, h / 2 - f, 0.015]);
  const [iw, ih] = [w / 2 - 0.1, h - 0.2];
  const sky: MaterialName = random() < 0.45 ? 'Picture dusk' : 'Picture sky';
  let low = -ih / 2;
  const bands: readonly (readonly [MaterialName, number])[] = [
    ['Picture marsh', 0.16 + 0.14 * random()],
    ['Tidal water', 0.06 + 0.08 * random()],
    ['Picture sea', 0.08 + 0.12 * random()],
    [sky, 1],
  ];
  for (const [material, share] of bands) {
    const high = Math.min(ih / 2, low + share * ih);
    put(b, material, [-iw, low, 0.015], [iw, high, 0.019]);
    low = high;
  }
  const dx = (random() - 0.5) * iw;
  put(b, 'Slate', [dx - 0.01, -ih * 0.22, 0.019], [dx + 0.01, ih * 0.12, 0.022]);
  put(b, 'Slate', [dx - 0.05, ih * 0.1, 0.019], [dx + 0.06, ih * 0.13, 0.022]);
}

/** A paper tern on a thread: two bent wings and a body. */
function tern(b: Builder, x: number, y: number, z: number, turn: number, size: number, ceiling: number): void {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const at = (dx: number, dy: number, dz: number): Point => [
    x + (dx * c + dz * s) * size,
    y + dy * size,
    z + (-dx * s + dz * c) * size,
  ];
  for (const side of [-1, 1]) {
    const wing = [at(0.12, 0, 0), at(0, 0.1, side * 0.22), at(-0.16, 0.05, side * 0.48), at(-0.1, 0, 0)];
    b.face('Linen white', side > 0 ? wing.slice(0, 3) : wing.slice(0, 3).reverse());
    b.face('Linen white', side > 0 ? [wing[0]!, wing[2]!, wing[3]!] : [wing[3]!, wing[2]!, wing[0]!]);
  }
  b.face('Linen white', [at(0.26, 0, 0), at(-0.1, -0.05, 0), at(-0.36, 0.02, 0), at(-0.1, 0.03, 0)]);
  b.box('Dark steel', [x - 0.002, y, z - 0.002], [x + 0.002, ceiling, z + 0.002], { top: true, bottom: true });
}

/** A flock that rises through the hall. */
export function flock(b: Builder, centre: Point, ceilingAt: (z: number) => number): void {
  const random = seeded(77);
  for (let i = 0; i < 26; i += 1) {
    const t = i / 26;
    const angle = t * 2.4 * Math.PI;
    const radius = 0.5 + 1.3 * t + 0.4 * random();
    const [x, z] = [centre[0] + radius * Math.cos(angle), centre[2] + 0.8 * radius * Math.sin(angle)];
    tern(
      b,
      x,
      centre[1] + 1.7 * t + 0.3 * random(),
      z,
      angle + Math.PI / 2 + 0.4 * (random() - 0.5),
      0.85 + 0.3 * random(),
      ceilingAt(z),
    );
  }
}

/** A pot with stiff upright leaves. */
export function plant(b: Builder, x: number, y: number, z: number, height: number, seed: number): void {
  const random = seeded(seed);
  b.lathe(
    'Enamel, dark',
    [x, y, z],
    [
      [0.14, 0],
      [0.19, 0.34],
      [0.165, 0.34],
      [0.16, 0.3],
      [0, 0.3],
    ],
    12,
  );
  for (let i = 0; i < 22; i += 1) {
    const angle = random() * 2 * Math.PI;
    const lean = 0.08 + 0.32 * random();
    const tall = height * (0.55 + 0.45 * random());
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const foot: Point = [x + 0.05 * c, y + 0.3, z + 0.05 * s];
    const tip: Point = [x + lean * c, y + 0.3 + tall, z + lean * s];
    const mid = (side: number): Point => [
      x + 0.45 * lean * c - side * 0.035 * s,
      y + 0.3 + 0.55 * tall,
      z + 0.45 * lean * s + side * 0.035 * c,
    ];
    b.face('Leaf green', [foot, mid(1), tip]);
    b.face('Leaf green', [foot, tip, mid(-1)]);
  }
}
