import { ownName, type ModelBody, type ModelGuess, type Placement, type UpAxis } from '../document/index.ts';
import { joinBounds, sizesOf } from '../geometry/index.ts';
import { knownPose, knownSize, type KnownSize, type Pose } from './known-sizes.ts';
import { liesOver } from './plan-mask.ts';
import { AXIS, measureShape, silhouetteOf, type Level, type NamedSize, type Shape, type ShapeAlong } from './shape.ts';
import type { ReadModel } from '../format/index.ts';

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

/** How often each unit is met where nothing is said, as a logarithm (common practice, no source). */
const HOW_OFTEN: Record<number, number> = { 0.001: -0.4, 0.01: -0.8, 0.0254: -1.1, 0.3048: -1.1, 1: 0, 1000: -2.5 };
/** What a file declares is believed unless the shape speaks loudly against it. */
const DECLARED = 5;
/** A guess at least this likely is taken as it is; below, the next ones are shown too. */
export const SURE = 0.85;
/** Sizes that deserve a look before anything is built on them, metres (common practice, no source). */
export const ODD_SIZE = { small: 0.005, large: 10_000 } as const;
/** As many guesses are shown at most, and none less likely than this. */
const MOST_SHOWN = 3;
const LEAST_SHOWN = 0.03;

/** Width of a landscape, of one thing, of many on a plate, of buildings; heights of houses, heights of storeys, risers of steps, thickness of walls, metres (common practice, no source). */
const LAND = [60, 8000] as const;
const THING = [0.05, 60] as const;
const ON_PLATE = [0.05, 1000] as const;
const BUILT = [3, 300] as const;
const HOUSE = [3, 25] as const;
const STOREY = [2.4, 4.5] as const;
const RISER = [0.13, 0.21] as const;
const WALL = [0.07, 0.6] as const;

interface Evidence {
  score: number;
  /** In favour, one sentence each. */
  why: string[];
}

/**
 * How well a length fits a range: 1 in its middle, a little less at its ends, then down by its distance in factors of
 * two.
 */
function fit(value: number, [low, high]: readonly [number, number]): number {
  if (!(value > 0)) return -3;
  const half = Math.log2(high / low) / 2;
  const middle = Math.log2(value / Math.sqrt(low * high));
  const off = Math.max(0, Math.abs(middle) - half);
  return Math.max(-3, 1 - 0.7 * Math.min(1, (middle / half) ** 2) - 1.5 * off);
}

const metres = (value: number) =>
  value >= 1
    ? `${value.toLocaleString('en', { maximumFractionDigits: value < 10 ? 1 : 0 })} m`
    : value >= 0.01
      ? `${(100 * value).toFixed(0)} cm`
      : `${(1000 * value).toFixed(1)} mm`;

/**
 * The most likely units and up-axes of a model, the best first, with reasons and how sure that is. Weighed are what the
 * file declares, names of parts and of the file, storeys, steps, walls, proportions, and what lies flat.
 * @param declares what the file says; null where its format says nothing
 */
export function guessModel(
  shape: Shape,
  declares: Pick<ModelBody['declares'], 'metresPerUnit' | 'up'>,
  fileName: string,
): ModelGuess['candidates'] {
  const { known, posed } = whatNamesSay(shape, fileName);
  const floors = { y: floorsOf(shape.along.y), z: floorsOf(shape.along.z) };
  const all = (['y', 'z'] as const).flatMap((up) => {
    const axis = axisEvidence(shape, floors, up, posed, fileName);
    return UNITS.map(({ metres: unit }) => {
      const size = sizeEvidence(shape.along[up], floors[up], unit, up, known);
      const said =
        (declares.metresPerUnit !== null && Math.abs(declares.metresPerUnit / unit - 1) < 1e-6 ? DECLARED : 0) +
        (declares.up === up ? DECLARED : 0);
      return {
        metresPerUnit: unit,
        up,
        score: axis.score + size.score + said + HOW_OFTEN[unit]!,
        why: [...size.why, ...axis.why],
      };
    });
  });
  const own = declares.metresPerUnit;
  if (own !== null && !UNITS.some(({ metres: unit }) => Math.abs(own / unit - 1) < 1e-6))
    return [{ metresPerUnit: own, up: declares.up ?? 'y', share: 1, why: ['The file says its unit.'] }];
  const best = Math.max(...all.map(({ score }) => score));
  const total = all.reduce((sum, { score }) => sum + Math.exp(score - best), 0);
  const ranked = all
    .map(({ score, ...rest }) => ({ ...rest, share: Math.exp(score - best) / total }))
    .sort((a, b) => b.share - a.share);
  return ranked.filter(({ share }, i) => i === 0 || (i < MOST_SHOWN && share >= LEAST_SHOWN));
}

type Size = readonly [number, number, number];

interface KnownThing {
  name: string;
  size: Size;
  known: KnownSize;
}

interface PosedThing {
  name: string;
  size: Size;
  pose: Pose;
}

/** A thing of several parts is no larger than so many times its largest part. */
const ONE_THING = 3;

/**
 * What names say of sizes and of lying or standing. Parts of one thing (seat, back and legs of a chair) are taken
 * together.
 */
function whatNamesSay({ named }: Shape, fileName: string): { known: KnownThing[]; posed: PosedThing[] } {
  const posed = named.flatMap((part) => {
    const pose = knownPose(part.name);
    return pose ? [{ name: part.name, size: sizesOf(part), pose }] : [];
  });
  const groups = new Map<KnownSize, NamedSize[]>();
  for (const part of named) {
    const known = knownSize(part.name);
    if (known) groups.set(known, [...(groups.get(known) ?? []), part]);
  }
  const known: KnownThing[] = [];
  for (const [one, parts] of groups) {
    const whole = joinBounds(parts)!;
    const largest = Math.max(...parts.map((part) => Math.max(...sizesOf(part))));
    if (Math.max(...sizesOf({ ...whole })) <= ONE_THING * largest)
      known.push({ name: parts[0]!.name, size: sizesOf(whole), known: one });
    else known.push(...parts.map((part) => ({ name: part.name, size: sizesOf(part), known: one })));
  }
  const title = fileName.replace(/\.[a-z0-9]+$/i, '');
  const whole = joinBounds(named);
  const said = knownSize(title);
  if (said && whole) known.push({ name: title, size: sizesOf(whole), known: said });
  return { known, posed };
}

/** Mean over many things, so that a thousand doors say no more than a few. */
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);

function sizeEvidence(
  along: ShapeAlong,
  { storey, storeys }: Floors,
  unit: number,
  up: UpAxis,
  known: readonly KnownThing[],
): Evidence {
  const why: string[] = [];
  let score = 0;
  const fits = known.flatMap(({ size, known: { height, largest } }) => [
    ...(height ? [fit(size[AXIS[up]] * unit, height)] : []),
    ...(largest ? [fit(Math.max(...size) * unit, largest)] : []),
  ]);
  if (fits.length > 0) {
    const value = mean(fits);
    score += 3.5 * value;
    const [one] = known.filter(({ known: { height } }) => height);
    if (value > 0.6 && one) why.push(`“${ownName(one.name)}” is ${metres(one.size[AXIS[up]] * unit)} high then.`);
  }
  const width = Math.max(...along.plan, along.height) * unit;
  if (along.heightField) {
    score += 3 * fit(width, LAND);
    if (width >= LAND[0] && width <= LAND[1]) why.push(`The ground is ${metres(width)} across then.`);
    return { score, why };
  }
  if (storey !== null) {
    const value = fit(storey * unit, STOREY);
    score += Math.min(4, 2 + 0.4 * storeys) * value;
    if (value > 0.9)
      why.push(
        storeys > 1
          ? `Its floors are ${metres(storey * unit)} apart then.`
          : `It is ${metres(storey * unit)} from floor to floor then.`,
      );
  }
  if (along.onLand !== null && storey === null) {
    // Solid blocks: tops of different heights are no steps, and what is between two of them is no wall.
    score += 3 * fit(along.onLand * unit, HOUSE);
    if (fit(along.onLand * unit, HOUSE) > 0)
      why.push(`What stands on it is about ${metres(along.onLand * unit)} high then.`);
  } else if (riserOf(along, unit)) score += 1.5;
  // Without a floor nothing says that these are walls: a thing of thin sides has some, whichever way up.
  if (along.thickness !== null && storey !== null) {
    score += 1.2 * fit(along.thickness * unit, WALL);
    if (fit(along.thickness * unit, WALL) === 1) why.push(`Walls are ${metres(along.thickness * unit)} thick then.`);
  }
  // A commission is between a ring and a district, or as large as its land; a plate of many pieces is any of these.
  const usual = along.onLand !== null ? LAND : along.onPlate ? ON_PLATE : storey === null ? THING : BUILT;
  score += (along.onLand !== null ? 2 : 1) * fit(width, usual) + Math.min(0, fit(width, [0.004, 30_000]));
  if (along.onLand !== null && fit(width, usual) > 0) why.push(`The ground is ${metres(width)} across then.`);
  return { score, why };
}

/** Of many distances at least half are this much alike, as a part, where they are storeys. */
const MANY = 5;
const ALIKE = 0.1;

interface Floors {
  /** Distance between large floors; null where there is but one level. In the file's unit. */
  storey: number | null;
  /** How many times it comes. */
  storeys: number;
  /** How many floors lie evenly above each other. */
  even: number;
}
const NO_FLOORS: Floors = { storey: null, storeys: 0, even: 0 };

/** A tower is at most so many times as high as it is deep (common practice, no source); rows of houses lie in such a way. */
const SLENDER = 12;

function floorsOf({ levels, height, plan, onLand, heightField }: ShapeAlong): Floors {
  if (height > SLENDER * Math.min(...plan)) return NO_FLOORS;
  const largest = Math.max(0, ...levels.map(({ area }) => area));
  const large = levels.filter(({ area }) => area > 0.3 * largest);
  // From a floor to the next one over it: tops of houses beside each other are no storeys.
  const over = large.map((floor, i) => large.slice(i + 1).filter(({ plan }) => liesOver(plan, floor.plan)));
  const apart = over.flatMap(([next], i) => (next ? [next.height - large[i]!.height] : []));
  const most = Math.max(0, ...apart);
  // The thickness of a slab is no storey.
  const distances = apart.filter((distance) => distance > 0.35 * most).sort((a, b) => a - b);
  const storeys = distances.length;
  const storey = distances[Math.floor(storeys / 2)];
  if (storey === undefined) return NO_FLOORS;
  // Roofs over the ground floors of many houses are as far apart as each of them is high.
  const alike = distances.filter((distance) => Math.abs(distance - storey) < ALIKE * storey).length;
  if (storeys >= MANY && alike <= storeys / 2) return NO_FLOORS;
  // Nor are a few that happen to be over each other where many houses stand.
  if (onLand !== null && storeys < large.length / 2) return NO_FLOORS;
  const isStorey = (from: Level) => (to: Level) => Math.abs(to.height - from.height - storey) < 0.08 * storey;
  const even = heightField || storeys < 2 ? 0 : large.filter((floor, i) => over[i]!.some(isStorey(floor))).length;
  return { storey, storeys, even };
}

/** Are there small level steps as high as people climb, several alike? */
function riserOf({ levels }: ShapeAlong, unit: number): boolean {
  const steps = levels.slice(1).map(({ height }, i) => (height - levels[i]!.height) * unit);
  return steps.filter((step) => step >= RISER[0] && step <= RISER[1]).length >= 4;
}

function axisEvidence(
  shape: Shape,
  floors: Record<UpAxis, Floors>,
  up: UpAxis,
  posed: readonly PosedThing[],
  fileName: string,
): Evidence {
  const why: string[] = [];
  const along = shape.along[up];
  const beside = up === 'y' ? 'z' : 'y';
  const other = shape.along[beside];
  let score = 0;
  if ((along.heightField && !other.heightField) || (along.onLand !== null && other.onLand === null)) {
    score += 6;
    why.push(
      along.heightField
        ? `Seen along ${up.toUpperCase()} nothing lies over anything: a landscape.`
        : `Seen along ${up.toUpperCase()} it stands on land.`,
    );
  }
  const [k, o] = [AXIS[up], AXIS[beside]];
  const agree = posed.map(({ size, pose }) => poseAgrees(size, pose, k, o));
  if (agree.length > 0) {
    const value = mean(agree);
    score += 5 * value;
    const thing = posed.find((_, i) => agree[i] === 1);
    if (value > 0.4 && thing)
      why.push(`“${ownName(thing.name)}” ${thing.pose} as it should with ${up.toUpperCase()} up.`);
  }
  const regular = floors[up].even;
  if (regular > floors[beside].even) {
    score += Math.min(3, 0.7 * regular);
    if (regular >= 3) why.push(`Floors lie evenly above each other along ${up.toUpperCase()}.`);
  }
  score += 2.5 * (lopsidedness(along) - lopsidedness(other));
  score += 1.2 * (Math.min(1, along.cover) - Math.min(1, other.cover));
  // Turned bodies and many towers stand on their round or square end.
  const even = ({ plan: [a, b] }: ShapeAlong) => Math.abs(a - b) < 0.03 * Math.max(a, b);
  // A ring lies or stands: what is flat and round says less.
  const flat = along.height < FLAT * Math.max(...along.plan);
  if (even(along) && !even(other) && !along.heightField) score += flat ? 0.3 : 1.5;
  // Most of what is built is wider than it is high, except where it is made of storeys.
  if (regular < 3) score += along.height < other.height ? 0.7 : along.height > other.height ? -0.7 : 0;
  if (/\.stl$/i.test(fileName) && up === 'z') score += 0.5;
  if (/\.(obj|glb|gltf)$/i.test(fileName) && up === 'y') score += 0.5;
  return { score, why };
}

/** What is lower than this part of its width has no below and above to speak of. */
const SHEET = 0.05;
const lopsidedness = ({ lopsided, height, plan }: ShapeAlong): number =>
  lopsided * Math.min(1, height / (SHEET * Math.max(...plan)));

/** 1 where a thing lies or stands as its name says with axis `k` up, −1 where it does with the other, else 0. */
function poseAgrees(size: Size, pose: Pose, k: 1 | 2, o: 1 | 2): number {
  const [here, there] = [size[k], size[o]];
  switch (pose) {
    case 'lies':
      return here < 0.5 * Math.min(size[0], there) ? 1 : there < 0.5 * Math.min(size[0], here) ? -1 : 0;
    case 'stands':
      return here > there && there < 0.4 * size[0] ? 1 : there > here && here < 0.4 * size[0] ? -1 : 0;
    case 'is tall':
      return here > 1.5 * Math.max(size[0], there) ? 1 : there > 1.5 * Math.max(size[0], here) ? -1 : 0;
  }
}

/** What is lower than this part of its width is flat. */
const FLAT = 0.3;

/** What is made of a model that has just been read, and how it looks either way up. */
export const guessOf = (model: ReadModel, fileName: string): ModelGuess => ({
  candidates: guessModel(measureShape(model), model.declares, fileName),
  silhouettes: { y: silhouetteOf(model, 'y'), z: silhouetteOf(model, 'z') },
});

/** A first placement by the best guess. */
export const placementFor = ({ metresPerUnit, up }: { metresPerUnit: number; up: UpAxis }): Placement => ({
  metresPerUnit,
  up,
  turn: 0,
  position: [0, 0, 0],
});
