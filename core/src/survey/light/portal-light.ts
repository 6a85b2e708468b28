import { dot } from '../../geometry/index.ts';
import { hemisphere, onSquare, setFrame } from './hemisphere.ts';
import type { Portal } from './portals.ts';
import type { RayTree } from './ray-tree.ts';

/** Side of the cells that places are told apart by to know which openings they may see, metres. */
const CELL = 1;
/** No opening is looked for from farther away than this, metres, nor where it would be less than this part of what is seen. */
const FARTHEST = 20;
const FAINTEST = 0.0015;
/** Rays by which an opening finds the cells that may see it. */
const SCOUTS = 512;
/** Nearer than this many times its area, squared, an opening is so large that rays everywhere find it. */
const NEAR = 1.5;
/** Samples on all openings of a place, shared out by what each may give; as few as that on one. */
const SAMPLES = 40;
const FEWEST = 2;
/** Multiples of the golden section fill a line evenly (Fibonacci lattice: Niederreiter 1992). */
const GOLDEN_PART = (Math.sqrt(5) - 1) / 2;

/**
 * What comes through an opening along a ray that gets there, of which `weight` falls on the place.
 * @param far to the opening, metres: what lies in its own plane is not seen through it
 */
export type Through = (dx: number, dy: number, dz: number, far: number, weight: number) => void;

interface Known {
  portal: Portal;
  /** Cells from its own one to each side, and which of them may see it. */
  reach: number;
  cells: Uint8Array;
  /** Squares of the lengths of its sides' halves. */
  uu: number;
  vv: number;
  /** Of what the place at hand sees, what is seen through it if nothing is in the way. */
  part: number;
}

/**
 * Light through openings (next-event estimation over portals: Jensen 2001, ch. 2; Bitterli et al. 2015): all that a place
 * sees through one is looked for on it, and left out of what rays everywhere find. Whether an opening was found well says
 * only how even the light is, not how much there is of it.
 */
export class PortalLight {
  private readonly known: readonly Known[];
  /** Those of the place at hand. */
  private readonly active: Known[] = [];
  private readonly place = new Float64Array(3);

  constructor(
    portals: readonly Portal[],
    private readonly tree: RayTree,
  ) {
    this.known = portals.map((portal) => reachOf(portal, tree));
  }

  /** Chooses the openings that a place sees something through. @param nx, ny, nz its normal */
  at(x: number, y: number, z: number, nx: number, ny: number, nz: number): void {
    this.active.length = 0;
    this.place.set([x, y, z]);
    for (const known of this.known) {
      const { centre, normal, area, u, v } = known.portal;
      const [wx, wy, wz] = [x - centre[0], y - centre[1], z - centre[2]];
      const before = wx * normal[0] + wy * normal[1] + wz * normal[2];
      const away = wx * wx + wy * wy + wz * wz;
      if (before < 0.05 || away < NEAR * area || !mayBeSeen(known, wx, wy, wz)) continue;
      // How far the corner that is highest over the place's own plane is above it.
      const above = Math.abs(u[0] * nx + u[1] * ny + u[2] * nz) + Math.abs(v[0] * nx + v[1] * ny + v[2] * nz);
      if (above <= wx * nx + wy * ny + wz * nz) continue;
      this.active.push(known);
    }
  }

  /** Is anything looked at through an opening? */
  any(): boolean {
    return this.active.length > 0;
  }

  /** Leaves all openings of the place at hand to rays everywhere. */
  none(): void {
    this.active.length = 0;
  }

  /** Does a ray from the place go through one of its openings before `far` metres? */
  goesThrough(dx: number, dy: number, dz: number, far: number): boolean {
    for (let i = 0; i < this.active.length; i += 1) if (this.through(this.active[i]!, dx, dy, dz, far)) return true;
    return false;
  }

  private through({ portal, uu, vv }: Known, dx: number, dy: number, dz: number, far: number): boolean {
    const { centre: c, normal: n, u, v } = portal;
    const [x, y, z] = [this.place[0]! - c[0], this.place[1]! - c[1], this.place[2]! - c[2]];
    const toward = -(dx * n[0] + dy * n[1] + dz * n[2]);
    if (toward <= 1e-6) return false;
    const t = (x * n[0] + y * n[1] + z * n[2]) / toward;
    if (t >= far) return false;
    const [px, py, pz] = [x + t * dx, y + t * dy, z + t * dz];
    return Math.abs(px * u[0] + py * u[1] + pz * u[2]) <= uu && Math.abs(px * v[0] + py * v[1] + pz * v[2]) <= vv;
  }

  /**
   * Looks through all openings of the place at hand.
   * @param nx, ny, nz its normal
   * @param shift moves the samples over the opening, 0…1 each
   * @param share of the samples that are usual
   */
  look(nx: number, ny: number, nz: number, see: Through, [shiftU, shiftV]: readonly [number, number], share = 1): void {
    let whole = 0;
    for (const one of this.active) whole += one.part = this.partOf(one);
    for (const [i, one] of this.active.entries()) {
      const { centre: c, normal: n, u, v, area } = one.portal;
      const [wx, wy, wz] = [c[0] - this.place[0]!, c[1] - this.place[1]!, c[2] - this.place[2]!];
      const count = Math.max(FEWEST, Math.round((share * SAMPLES * one.part) / whole));
      const weigh = area / (Math.PI * count);
      for (let k = 0; k < count; k += 1) {
        // No two in a row or a column: reveals, frames and the horizon cut openings along their sides.
        const s = 2 * (((k + 0.5) / count + shiftU) % 1) - 1;
        const t = 2 * ((k * GOLDEN_PART + shiftV) % 1) - 1;
        const [x, y, z] = [wx + s * u[0] + t * v[0], wy + s * u[1] + t * v[1], wz + s * u[2] + t * v[2]];
        const square = x * x + y * y + z * z;
        const far = Math.sqrt(square);
        const [dx, dy, dz] = [x / far, y / far, z / far];
        const falls = dx * nx + dy * ny + dz * nz;
        const out = -(dx * n[0] + dy * n[1] + dz * n[2]);
        if (falls <= 0 || out <= 0 || this.isAnothers(i, dx, dy, dz)) continue;
        const { place } = this;
        if (this.tree.hits(place[0]!, place[1]!, place[2]!, dx, dy, dz, far)) continue;
        see(dx, dy, dz, far, (weigh * falls * out) / square);
      }
    }
  }

  /** About how much of what a place sees is seen through an opening, if nothing is in the way. */
  private partOf({ portal: { centre: c, normal: n, area } }: Known): number {
    const [wx, wy, wz] = [c[0] - this.place[0]!, c[1] - this.place[1]!, c[2] - this.place[2]!];
    const away = wx * wx + wy * wy + wz * wz;
    const facing = Math.max(0.2, -(wx * n[0] + wy * n[1] + wz * n[2]) / Math.sqrt(away));
    return (area * facing) / (Math.PI * away);
  }

  /** What goes through several openings is looked for on the first of them. */
  private isAnothers(i: number, dx: number, dy: number, dz: number): boolean {
    for (let j = 0; j < i; j += 1) if (this.through(this.active[j]!, dx, dy, dz, Infinity)) return true;
    return false;
  }
}

/** @param wx, wy, wz from the opening's centre to the place */
function mayBeSeen({ reach, cells }: Known, wx: number, wy: number, wz: number): boolean {
  const side = 2 * reach + 1;
  const [i, j, k] = [Math.round(wx / CELL) + reach, Math.round(wy / CELL) + reach, Math.round(wz / CELL) + reach];
  if (i < 0 || j < 0 || k < 0 || i >= side || j >= side || k >= side) return false;
  return cells[(i * side + j) * side + k] === 1;
}

/** Finds the cells that rays from an opening into the room come through, and those beside them. */
function reachOf(portal: Portal, tree: RayTree): Known {
  const { centre: c, u, v, normal: n, area } = portal;
  const far = Math.min(FARTHEST, Math.sqrt(area / (Math.PI * FAINTEST)));
  const reach = Math.ceil(far / CELL);
  const side = 2 * reach + 1;
  const cells = new Uint8Array(side ** 3);
  const frame = new Float64Array(6);
  setFrame(frame, ...n);
  const ways = hemisphere(SCOUTS);
  const hit = { triangle: -1, distance: 0, back: false };
  for (let i = 0; i < SCOUTS; i += 1) {
    const [a, b, d] = [ways[3 * i]!, ways[3 * i + 1]!, ways[3 * i + 2]!];
    const way = [0, 1, 2].map((k) => a * frame[k]! + b * n[k]! + d * frame[3 + k]!) as [number, number, number];
    // Each from another place of it.
    const [s, t] = onSquare(i, 0.95);
    const from = [0, 1, 2].map((k) => s * u[k]! + t * v[k]! + 0.02 * n[k]!) as [number, number, number];
    const met = tree.closest(c[0] + from[0], c[1] + from[1], c[2] + from[2], ...way, hit);
    const end = Math.min(far, met ? hit.distance : Infinity);
    for (let at = 0; at <= end + CELL / 2; at += CELL) mark(cells, reach, from, way, Math.min(at, end));
  }
  return { portal, reach, cells, uu: dot(u, u), vv: dot(v, v), part: 0 };
}

function mark(cells: Uint8Array, reach: number, from: readonly number[], way: readonly number[], at: number): void {
  const side = 2 * reach + 1;
  const cell = (k: number) => Math.round((from[k]! + at * way[k]!) / CELL) + reach;
  const [x, y, z] = [cell(0), cell(1), cell(2)];
  for (let i = Math.max(0, x - 1); i <= Math.min(side - 1, x + 1); i += 1)
    for (let j = Math.max(0, y - 1); j <= Math.min(side - 1, y + 1); j += 1)
      for (let k = Math.max(0, z - 1); k <= Math.min(side - 1, z + 1); k += 1) cells[(i * side + j) * side + k] = 1;
}
