import type { Builder, MaterialName } from '../kit/index.ts';

export interface Opening {
  from: number;
  to: number;
  /** Heights of the lower and upper edge. */
  sill: number;
  head: number;
}

export interface WallRun {
  /** The wall runs along this axis … */
  along: 'x' | 'z';
  /** … with its middle at this value of the other one. */
  at: number;
  from: number;
  to: number;
  thickness: number;
  base: number;
  top: number;
  openings?: readonly Opening[];
  material?: MaterialName;
}

/** A box given along and across a wall. */
export function wallBox(
  b: Builder,
  material: MaterialName,
  wall: Pick<WallRun, 'along' | 'at'>,
  along: readonly [number, number],
  up: readonly [number, number],
  across: readonly [number, number],
): void {
  const [c0, c1] = [wall.at + across[0], wall.at + across[1]];
  if (wall.along === 'x') b.box(material, [along[0], up[0], c0], [along[1], up[1], c1]);
  else b.box(material, [c0, up[0], along[0]], [c1, up[1], along[1]]);
}

/** A straight wall with openings: piers between them, spandrels below, lintels above. */
export function wall(b: Builder, run: WallRun): void {
  const material = run.material ?? 'Lime plaster';
  const half = run.thickness / 2;
  const piece = (from: number, to: number, base: number, top: number) => {
    if (to - from > 1e-6 && top - base > 1e-6) wallBox(b, material, run, [from, to], [base, top], [-half, half]);
  };
  let done = run.from;
  for (const opening of [...(run.openings ?? [])].sort((p, q) => p.from - q.from)) {
    piece(done, opening.from, run.base, run.top);
    piece(opening.from, opening.to, run.base, opening.sill);
    piece(opening.from, opening.to, opening.head, run.top);
    done = opening.to;
  }
  piece(done, run.to, run.base, run.top);
}

/** Skirting boards on one or both faces of a wall, left out at doors. */
export function skirting(b: Builder, run: WallRun, sides: readonly (1 | -1)[]): void {
  const doors = (run.openings ?? []).filter((o) => o.sill <= run.base + 0.05).sort((p, q) => p.from - q.from);
  for (const side of sides) {
    let done = run.from;
    const strip = (from: number, to: number) => {
      const face = (side * run.thickness) / 2;
      if (to - from > 0.02)
        wallBox(b, 'Oak joinery', run, [from, to], [run.base, run.base + 0.09], [face, face + side * 0.016]);
    };
    for (const door of doors) {
      strip(done, door.from - 0.08);
      done = door.to + 0.08;
    }
    strip(done, run.to);
  }
}

/** Frame, mullions, sill and glass in an opening of a wall. */
export function window(
  b: Builder,
  run: WallRun,
  opening: Opening,
  options: { panes: number; transoms?: readonly number[]; inside: 1 | -1; frame?: MaterialName },
): void {
  const frame = options.frame ?? 'Oak joinery';
  const { from, to, sill, head } = opening;
  const depth: [number, number] = [-0.06, 0.06];
  const bar = 0.06;
  wallBox(b, frame, run, [from, from + bar], [sill, head], depth);
  wallBox(b, frame, run, [to - bar, to], [sill, head], depth);
  wallBox(b, frame, run, [from + bar, to - bar], [sill, sill + bar], depth);
  wallBox(b, frame, run, [from + bar, to - bar], [head - bar, head], depth);
  const step = (to - from) / options.panes;
  for (let i = 1; i < options.panes; i += 1)
    wallBox(
      b,
      frame,
      run,
      [from + i * step - 0.025, from + i * step + 0.025],
      [sill + bar, head - bar],
      [-0.045, 0.045],
    );
  for (const height of options.transoms ?? [])
    wallBox(b, frame, run, [from + bar, to - bar], [height - 0.025, height + 0.025], [-0.045, 0.045]);
  pane(b, run, from + bar, to - bar, sill + bar, head - bar);
  if (sill > run.base + 0.2) {
    const face = (options.inside * run.thickness) / 2;
    wallBox(b, 'Oak joinery', run, [from - 0.06, to + 0.06], [sill - 0.035, sill], [0, face + options.inside * 0.1]);
  }
}

/** One sheet of glass in the middle of a wall. */
export function pane(
  b: Builder,
  run: Pick<WallRun, 'along' | 'at'>,
  from: number,
  to: number,
  low: number,
  high: number,
): void {
  if (run.along === 'x')
    b.face('Glass', [
      [from, low, run.at],
      [to, low, run.at],
      [to, high, run.at],
      [from, high, run.at],
    ]);
  else
    b.face('Glass', [
      [run.at, low, from],
      [run.at, high, from],
      [run.at, high, to],
      [run.at, low, to],
    ]);
}

/** Lining and architraves of a door opening, and a leaf standing open. */
export function door(
  b: Builder,
  run: WallRun,
  opening: Opening,
  leaf?: { hinge: 'from' | 'to'; swing: 1 | -1; open: number },
): void {
  const half = run.thickness / 2 + 0.012;
  const lining = 0.035;
  const { from, to, sill, head } = opening;
  wallBox(b, 'Oak joinery', run, [from, from + lining], [sill, head], [-half, half]);
  wallBox(b, 'Oak joinery', run, [to - lining, to], [sill, head], [-half, half]);
  wallBox(b, 'Oak joinery', run, [from, to], [head - lining, head], [-half, half]);
  for (const side of [1, -1]) {
    const face: [number, number] = [side * (run.thickness / 2), side * (run.thickness / 2 + 0.018)];
    wallBox(b, 'Oak joinery', run, [from - 0.07, from], [sill, head + 0.07], face);
    wallBox(b, 'Oak joinery', run, [to, to + 0.07], [sill, head + 0.07], face);
    wallBox(b, 'Oak joinery', run, [from, to], [head, head + 0.07], face);
  }
  if (!leaf) return;
  const width = to - from - 2 * lining;
  const hinge = leaf.hinge === 'from' ? from + lining : to - lining;
  const sense = leaf.hinge === 'from' ? 1 : -1;
  // Direction of the open leaf in plan, from its hinge.
  const [alongPart, acrossPart] = [Math.cos(leaf.open) * sense, Math.sin(leaf.open) * leaf.swing];
  const across0 = leaf.swing * (run.thickness / 2);
  const centre = [hinge + (alongPart * width) / 2, run.at + across0 + (acrossPart * width) / 2] as const;
  const [x, z] = run.along === 'x' ? centre : [centre[1], centre[0]];
  const turn = run.along === 'x' ? -Math.atan2(acrossPart, alongPart) : -Math.atan2(alongPart, acrossPart);
  b.turnedBox('Oak joinery', [x, sill + 0.008, z], [width, head - sill - lining - 0.012, 0.042], turn);
  const knob = [hinge + alongPart * width * 0.9, run.at + across0 + acrossPart * width * 0.9] as const;
  const [kx, kz] = run.along === 'x' ? knob : [knob[1], knob[0]];
  b.turnedBox('Brass', [kx, sill + 1.02, kz], [0.12, 0.022, 0.15], turn);
}
