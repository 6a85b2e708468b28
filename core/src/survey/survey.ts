import { z } from 'zod';
import {
  boundsSchema,
  finite,
  storeySchema,
  vec3Schema,
  type Bounds,
  type StoreyChange,
  type Walker,
} from '../document/index.ts';
import { isLandscape, triangleSoup, type SceneModel } from '../format/index.ts';
import { boundsOf, TRIANGLE } from '../geometry/index.ts';
import { correctStoreys, joinExtents, planExtent } from './correct-storeys.ts';
import { Columns, StoreyColumns } from './columns.ts';
import { FloorIndex, walkableTriangles } from './floor-index.ts';
import { footingOf, type Footing } from './footing.ts';
import { contoursOf } from './contours.ts';
import { wallsOf } from './lintels.ts';
import { reliefOf } from './relief.ts';
import { CUT_HEIGHT, planCut, type PlanCut } from './plan-cut.ts';
import { isInside } from './plan-loops.ts';
import { findRooms, type Room } from './rooms.ts';
import { SolidBodies } from './solid-bodies.ts';
import { findStoreys, OUTSIDE, type FoundStorey } from './storeys.ts';

/** Raised whenever the survey or the light computes something else: sites are then computed again. */
export const SURVEY_ALGORITHM = 27;

/** Checked in one piece: a landscape's lines are a million numbers. */
const lineWorkSchema = z.custom<number[]>(
  (value) => Array.isArray(value) && value.every(Number.isFinite),
  'expected a list of numbers',
);
export const surveySchema = z.object({
  bounds: boundsSchema,
  triangles: z.int().min(0),
  storeys: z.array(
    storeySchema.extend({
      /** Where the floor is in plan: [minX, minZ, maxX, maxZ], metres. */
      extent: z.tuple([finite, finite, finite, finite]),
      plan: z.object({
        cut: z.array(z.array(lineWorkSchema)),
        openCut: lineWorkSchema,
        glass: lineWorkSchema,
        below: lineWorkSchema,
      }),
      rooms: z.array(z.object({ name: z.string(), area: finite, at: vec3Schema, places: z.array(finite).default([]) })),
      /** Air over a lower floor: the hall beside a gallery, a stair well. */
      voids: z
        .array(
          z.object({
            area: finite,
            at: vec3Schema,
            extent: z.tuple([finite, finite, finite, finite]).nullable(),
          }),
        )
        .default([]),
      /** Where a walker gets to, six numbers (x, z) a triangle. */
      walkway: lineWorkSchema,
    }),
  ),
  /** Of the landscape, where there is one. */
  contours: z.array(z.object({ height: finite, index: z.boolean(), lines: lineWorkSchema })).default([]),
  /** Heights of the landscape, where there is one; see `Relief`. */
  relief: z
    .object({
      x0: finite,
      z0: finite,
      cell: finite.positive(),
      columns: z.int().positive(),
      rows: z.int().positive(),
      heights: z.custom<(number | null)[]>(
        (value) => Array.isArray(value) && value.every((one) => one === null || Number.isFinite(one)),
        'expected heights or null',
      ),
    })
    .nullable()
    .default(null),
});
export type Survey = z.infer<typeof surveySchema>;
export type SurveyedStorey = Survey['storeys'][number];

export interface SurveyResult {
  survey: Survey;
  footing: Footing;
}

export interface SurveyOptions {
  /** What people corrected about the storeys. */
  changes?: readonly StoreyChange[];
  /** Called with 0…1 between steps. */
  onProgress?: (part: number) => void;
}

/**
 * Everything that is measured on a site.
 * @param model placed: metres, y up
 * @param walker slope beyond which nothing is a floor
 * @throws RangeError for a model without triangles
 */
export function surveyModel(
  model: SceneModel,
  { slope }: Pick<Walker, 'slope'>,
  { changes = [], onProgress = () => {} }: SurveyOptions = {},
): SurveyResult {
  const { soup, seeThrough } = triangleSoup(model);
  if (soup.length === 0) throw new RangeError('a model needs at least one triangle');
  const bounds = boundsOf(soup);
  const footing = footingOf(model, { slope });
  const solid = SolidBodies.of(model);
  const columns = new Columns(soup, footing.floors, solid);
  onProgress(0.2);
  const landscape = new Set(model.parts.filter(isLandscape));
  const land = triangleSoup(model, (part) => landscape.has(part)).soup;
  const landFloors = land.length > 0 ? new FloorIndex(walkableTriangles(land, slope)) : null;
  const storeys = storeysOf(model, findStoreys(footing.walkable, columns.cover, landFloors, solid), changes, bounds);
  onProgress(0.3);
  const built = land.length > 0 ? triangleSoup(model, (part) => !landscape.has(part)) : { soup, seeThrough };
  const walls = wallsOf(built.soup);
  // What is too low for a plan's cut, a product, is cut through its middle.
  const cut = storeys.length === 1 ? Math.min(CUT_HEIGHT, (bounds.max[1] - storeys[0]!.elevation) / 2) : CUT_HEIGHT;
  const surveyed = storeys.map((storey, i) => {
    const plan = enlargedCut(built, storey.elevation, cut, enlargement(bounds));
    // The open ground has no rooms; what lies under the house is not one either.
    const outside = storey.name === OUTSIDE;
    const found = outside
      ? { rooms: [], voids: [], floor: 0 }
      : findRooms(walls, new StoreyColumns(columns, storey.elevation), reachOf(storeys, i));
    const rooms = roomsOf(model, storey) ?? found.rooms;
    onProgress(0.3 + (0.7 * (i + 1)) / storeys.length);
    return {
      ...storey,
      area: areaOf(rooms) ?? (found.floor > LEAST_COVERED * storey.area ? found.floor : storey.area),
      plan,
      rooms,
      voids: found.voids,
      walkway: [],
    };
  });
  return {
    survey: {
      bounds,
      triangles: soup.length / TRIANGLE,
      storeys: surveyed,
      contours: contoursOf(land),
      relief: reliefOf(land),
    },
    footing,
  };
}

/** Open ground of which less than this part is under cover is as large as it is, not as its cover. */
const LEAST_COVERED = 0.1;

/** Plans are drawn to the millimetre: what is smaller than this is enlarged while it is cut, metres. */
const LEAST_PLAN = 2;

/** How many times a small product is enlarged: a power of ten. */
function enlargement({ min, max }: Bounds): number {
  const size = Math.max(max[0] - min[0], max[2] - min[2], 1e-6);
  return size >= LEAST_PLAN ? 1 : 10 ** Math.ceil(Math.log10(LEAST_PLAN / size));
}

function enlargedCut(
  { soup, seeThrough }: { soup: Float32Array; seeThrough: Uint8Array },
  elevation: number,
  above: number,
  times: number,
): PlanCut {
  if (times === 1) return planCut(soup, seeThrough, elevation, { above });
  const large = soup.map((value) => value * times);
  const { cut, openCut, glass, below } = planCut(large, seeThrough, elevation * times, {
    above: above * times,
    // It is no building: whatever is cut is solid.
    thickest: Infinity,
  });
  const small = (values: readonly number[]) => values.map((value) => value / times);
  return {
    cut: cut.map((outlines) => outlines.map(small)),
    openCut: small(openCut),
    glass: small(glass),
    below: small(below),
  };
}

/** A storey with what lies lower: over a hall that reaches beyond a gallery there is air of the gallery's storey. */
const reachOf = (storeys: readonly FoundStorey[], i: number): FoundStorey['extent'] =>
  joinExtents(storeys.slice(0, i + 1).flatMap(({ name, extent }) => (name === OUTSIDE ? [] : [extent])))!;

/** What a storey's rooms have together; null for one without rooms. */
const areaOf = (rooms: readonly Room[]): number | null =>
  rooms.length === 0 ? null : Math.round(rooms.reduce((sum, { area }) => sum + area, 0) * 100) / 100;

/** A storey of the file and one found nearer than this are the same, metres. */
const SAME_STOREY = 0.6;

/** Storeys by the file where it names them and there is floor to walk on, else as found; then as people want them. */
function storeysOf(
  model: SceneModel,
  found: readonly FoundStorey[],
  changes: readonly StoreyChange[],
  bounds: Bounds,
): FoundStorey[] {
  const named = (model.storeys ?? []).flatMap((storey): FoundStorey[] => {
    const match = found.find(({ elevation }) => Math.abs(elevation - storey.elevation) < SAME_STOREY);
    return match ? [{ ...match, name: storey.name, elevation: storey.elevation }] : [];
  });
  const rest = found.filter(({ elevation }) =>
    named.every((storey) => Math.abs(storey.elevation - elevation) >= SAME_STOREY),
  );
  const all = correctStoreys([...named, ...rest], changes, bounds);
  if (all.length > 0) return all;
  // A product on a plinth has no storey; it still gets a plan, cut at its own ground.
  return [{ name: 'Ground', elevation: bounds.min[1], area: 0, extent: planExtent(bounds) }];
}

/** Rooms that the file itself describes on a storey, or null where it describes none. */
function roomsOf(model: SceneModel, { elevation }: FoundStorey): Room[] | null {
  const rooms = (model.rooms ?? []).filter((room) => Math.abs(room.elevation - elevation) < 1.2);
  if (rooms.length === 0) return null;
  return rooms.map(({ name, area, outline }) => {
    const [x, z] = middleOf(outline);
    return { name, area: Math.round(area * 100) / 100, at: [x, elevation, z], places: placesWithin(outline) };
  });
}

/** Points about a metre apart within a closed outline of x, z pairs. */
function placesWithin(outline: readonly number[]): number[] {
  const along = (offset: number) => outline.filter((_, i) => i % 2 === offset);
  const [xs, zs] = [along(0), along(1)];
  const out: number[] = [];
  for (let x = Math.min(...xs) + 0.5; x < Math.max(...xs); x += 1)
    for (let z = Math.min(...zs) + 0.5; z < Math.max(...zs); z += 1) if (isInside(outline, x, z)) out.push(x, z);
  return out;
}

/** Centre of gravity of a closed outline of x, z pairs; its mean point where it has no area. */
function middleOf(outline: readonly number[]): [number, number] {
  let [area, x, z] = [0, 0, 0];
  for (let i = 0; i < outline.length; i += 2) {
    const j = (i + 2) % outline.length;
    const cross = outline[i]! * outline[j + 1]! - outline[j]! * outline[i + 1]!;
    area += cross;
    x += (outline[i]! + outline[j]!) * cross;
    z += (outline[i + 1]! + outline[j + 1]!) * cross;
  }
  if (Math.abs(area) > 1e-9) return [x / (3 * area), z / (3 * area)];
  const mean = (offset: number) =>
    outline.reduce((sum, value, i) => sum + (i % 2 === offset ? value : 0), 0) / Math.max(1, outline.length / 2);
  return [mean(0), mean(1)];
}
