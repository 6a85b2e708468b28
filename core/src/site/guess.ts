import type { Bounds, Placement, UpAxis } from '../document/index.ts';

/** Units that models arrive in, by what people call them. */
export const UNITS = [
  { name: 'millimetres', metres: 0.001 },
  { name: 'centimetres', metres: 0.01 },
  { name: 'inches', metres: 0.0254 },
  { name: 'feet', metres: 0.3048 },
  { name: 'metres', metres: 1 },
  { name: 'kilometres', metres: 1000 },
] as const;

export const unitName = (metres: number): string =>
  UNITS.find((unit) => Math.abs(unit.metres / metres - 1) < 1e-6)?.name ?? `units of ${metres} m`;

export interface Guess {
  metresPerUnit: number;
  up: UpAxis;
  /** Why, one sentence each; empty where what the file says is plausible. */
  reasons: string[];
}

/** A whole commission is between a hand-sized product and a large site (common practice, no source). Metres. */
const SMALLEST = 0.05;
const LARGEST = 5000;
/** Sizes that most models have: from a piece of furniture to a group of buildings. */
const LIKELY = [0.4, 600] as const;

/**
 * Guesses unit and up-axis of a model. What the file declares is believed while the size that follows is possible.
 * @param bounds in the file's own units and axes
 * @param declares what the file says; null where its format says nothing
 */
export function guessPlacement(bounds: Bounds, declares: { metresPerUnit: number | null; up: UpAxis | null }): Guess {
  const size = bounds.max.map((value, k) => value - bounds.min[k]!);
  const largest = Math.max(...size);
  const reasons: string[] = [];
  let metresPerUnit = declares.metresPerUnit ?? 1;
  const metres = largest * metresPerUnit;
  const possible = metres >= SMALLEST && metres <= LARGEST;
  if (!possible || (declares.metresPerUnit === null && metres > LIKELY[1])) {
    const better = [1, 0.001, 0.01, 0.0254, 1000].find(
      (unit) => largest * unit >= LIKELY[0] && largest * unit <= LIKELY[1],
    );
    if (better !== undefined && better !== metresPerUnit) {
      reasons.push(
        `As ${unitName(metresPerUnit)} it would be ${describe(metres)} across; as ${unitName(better)} it is ${describe(largest * better)}.`,
      );
      metresPerUnit = better;
    }
  }
  let up: UpAxis = declares.up ?? 'y';
  if (declares.up === null && size[2]! < 0.6 * size[1]! && size[0]! > size[2]! && size[1]! > 0.35 * size[0]!) {
    // Buildings and sites lie flat: the shortest side is the height.
    up = 'z';
    reasons.push('Its shortest side runs along Z: buildings and sites are wider than they are high.');
  }
  return { metresPerUnit, up, reasons };
}

const describe = (metres: number) =>
  metres >= 1 ? `${metres.toLocaleString('en', { maximumFractionDigits: 1 })} m` : `${(metres * 1000).toFixed(0)} mm`;

/** A first placement by the guess. */
export const placementFor = ({ metresPerUnit, up }: Guess): Placement => ({
  metresPerUnit,
  up,
  turn: 0,
  position: [0, 0, 0],
});
