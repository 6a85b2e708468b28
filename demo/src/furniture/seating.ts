import type { Builder, MaterialName } from '../kit/index.ts';

/** Places a small assembly: local x to the right, z to the front, turned about the vertical and set down at (x, y, z). */
export function placed(x: number, y: number, z: number, turn: number) {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return (
    b: Builder,
    material: MaterialName,
    from: readonly [number, number, number],
    to: readonly [number, number, number],
  ) => {
    const mx = (from[0] + to[0]) / 2;
    const mz = (from[2] + to[2]) / 2;
    b.turnedBox(
      material,
      [x + mx * c + mz * s, y + Math.min(from[1], to[1]), z - mx * s + mz * c],
      [Math.abs(to[0] - from[0]), Math.abs(to[1] - from[1]), Math.abs(to[2] - from[2])],
      turn,
    );
  };
}

export function chair(
  b: Builder,
  x: number,
  y: number,
  z: number,
  turn: number,
  seat: MaterialName = 'Wool, sand',
): void {
  const put = placed(x, y, z, turn);
  for (const sx of [-1, 1]) {
    put(b, 'Oak joinery', [sx * 0.2 - 0.018, 0, 0.17], [sx * 0.2 + 0.018, 0.43, 0.205]);
    put(b, 'Oak joinery', [sx * 0.2 - 0.018, 0, -0.215], [sx * 0.2 + 0.018, 0.82, -0.18]);
  }
  put(b, 'Oak joinery', [-0.22, 0.41, -0.21], [0.22, 0.44, 0.22]);
  put(b, seat, [-0.205, 0.44, -0.17], [0.205, 0.47, 0.21]);
  for (const h of [0.6, 0.74]) put(b, 'Oak joinery', [-0.2, h, -0.21], [0.2, h + 0.07, -0.188]);
}

export function stool(b: Builder, x: number, y: number, z: number, height = 0.72): void {
  b.lathe(
    'Oak joinery',
    [x, y, z],
    [
      [0, height - 0.04],
      [0.17, height - 0.04],
      [0.17, height],
      [0, height],
    ],
    10,
  );
  for (let k = 0; k < 4; k += 1) {
    const a = Math.PI / 4 + (k * Math.PI) / 2;
    b.bar(
      'Dark steel',
      [x + 0.2 * Math.cos(a), y, z + 0.2 * Math.sin(a)],
      [x + 0.11 * Math.cos(a), y + height - 0.04, z + 0.11 * Math.sin(a)],
      0.022,
      0.022,
    );
  }
}

export function bench(
  b: Builder,
  x: number,
  y: number,
  z: number,
  turn: number,
  length = 1.8,
  cushion: MaterialName = 'Wool, lagoon',
): void {
  const put = placed(x, y, z, turn);
  put(b, 'Walnut', [-length / 2, 0.36, -0.22], [length / 2, 0.41, 0.22]);
  put(b, cushion, [-length / 2 + 0.03, 0.41, -0.2], [length / 2 - 0.03, 0.47, 0.2]);
  for (const sx of [-1, 1])
    put(b, 'Walnut', [sx * (length / 2 - 0.22) - 0.03, 0, -0.19], [sx * (length / 2 - 0.22) + 0.03, 0.36, 0.19]);
}

export function armchair(b: Builder, x: number, y: number, z: number, turn: number, cover: MaterialName): void {
  const put = placed(x, y, z, turn);
  put(b, cover, [-0.3, 0.26, -0.3], [0.3, 0.43, 0.36]);
  put(b, cover, [-0.3, 0.43, -0.38], [0.3, 0.9, -0.24]);
  for (const sx of [-1, 1]) {
    put(b, 'Walnut', [sx * 0.35 - 0.025, 0.56, -0.36], [sx * 0.35 + 0.025, 0.6, 0.34]);
    for (const sz of [-0.32, 0.3])
      put(b, 'Walnut', [sx * 0.35 - 0.02, 0, sz - 0.02], [sx * 0.35 + 0.02, 0.56, sz + 0.02]);
  }
}
