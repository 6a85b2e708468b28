import type { Bounds, Lens, StillCamera, Vec3 } from '../document/index.ts';
import { forwardOf, middle, orientationOf, toRadians } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import type { Footing, Relief } from '../survey/index.ts';
import type { Terms } from './terms.ts';

/** Sides that a landscape is looked down at from, how far above the horizon, radians, and the part of its width that the picture shows there. */
const FROM = [35, 125, 215, 305].map(toRadians);
const DOWN = toRadians(20);
const SHOWN = 0.9;
/** So far over its highest place one is at least, in parts of its width. */
const OVER = 0.06;
/** Places are looked for so many cells apart, and compared with the land so many cells away. */
const [APART, ABOUT] = [6, 10];
/** So many of the most prominent ones are looked round from, no two nearer than this part of the land's width. */
const [MOST_PLACES, FAR_APART] = [14, 0.14];
/** Ways to look from a place, and rays across each picture. */
const [WAYS, RAYS] = [16, 7];
/** Land that rises so steeply just before the eye, by its tangent, shuts a picture. */
const SHUT = 0.12;
/** Where the land ends within this part of its width there is nothing to see; so many rays of a picture may go there. */
const [ENDS, MOST_ENDING] = [0.22, 2];
/** A skyline as flat as this, of what is lively, is nothing to stand before. */
const DULL = 0.2;
/** A picture is deep that goes over this part of the land, and its skyline lively that rises and falls by so much, radians. */
const DEEP = 0.45;
const LIVELY = toRadians(3.5);

export interface LandView {
  camera: StillCamera;
  terms: Terms;
  /** How far the picture goes, metres; null from above. */
  depth: number | null;
  from: 'ground' | 'above';
}

interface Land {
  relief: Relief;
  footing: Footing;
  bounds: Bounds;
  /** Direction to the sun; null where there is none. */
  sun: Vec3 | null;
  lens: Lens;
  aspect: number;
  /** metres */
  eyeHeight: number;
}

/** Views of a landscape without a house: down on it from its corners, and from places that stand out over what is before them. */
export function overLand(land: Land): LandView[] {
  return [...fromAbove(land), ...prominent(land.relief).flatMap((at) => bestFrom(land, at))];
}

/** Is the sun behind who looks there, or beside? 0…1. */
const litFrom = (sun: Vec3 | null, pan: number): number =>
  sun ? 0.5 + 0.5 * (Math.sin(pan) * sun[0] + Math.cos(pan) * sun[2]) : 0.5;

function fromAbove({ bounds, sun, lens, aspect }: Land): LandView[] {
  const { left, right } = new Projection(throughLens(lens), aspect).edges;
  const width = Math.max(bounds.max[0] - bounds.min[0], bounds.max[2] - bounds.min[2]);
  const away = (SHOWN * width) / (right - left);
  const centre = middle(bounds);
  const cameraFrom = (pan: number): StillCamera => {
    const orientation = orientationOf({ pan, tilt: -DOWN, roll: 0 });
    const ahead = forwardOf(orientation);
    const at = (k: 0 | 1 | 2) => centre[k] - away * ahead[k];
    return { pose: { position: [at(0), Math.max(at(1), bounds.max[1] + OVER * width), at(2)], orientation }, lens };
  };
  return FROM.map((pan) => ({
    camera: cameraFrom(pan),
    terms: { depth: 1, 'two sides': 1, light: litFrom(sun, pan), subject: 1, 'room before it': 1 },
    depth: null,
    from: 'above',
  }));
}

/** Cells that stand out over the land about them, the most prominent first. */
function prominent({ columns, rows, cell, heights }: Relief): number[] {
  const found: { at: number; over: number }[] = [];
  for (let row = APART; row < rows - APART; row += APART)
    for (let column = APART; column < columns - APART; column += APART) {
      const at = row * columns + column;
      const around = [-ABOUT, 0, ABOUT].flatMap((dr) =>
        [-ABOUT, 0, ABOUT].map((dc) => {
          const [c, r] = [column + dc, row + dr];
          return c < 0 || r < 0 || c >= columns || r >= rows ? null : heights[r * columns + c]!;
        }),
      );
      const known = around.filter((height) => height !== null);
      const own = heights[at];
      if (own === null || own === undefined || known.length < 4) continue;
      found.push({ at, over: own - known.reduce((sum, height) => sum + height, 0) / known.length });
    }
  found.sort((a, b) => b.over - a.over);
  const far = FAR_APART * Math.max(columns, rows) * cell;
  const place = (at: number): [number, number] => [(at % columns) * cell, Math.floor(at / columns) * cell];
  const chosen: number[] = [];
  for (const { at } of found) {
    const [x, z] = place(at);
    if (chosen.every((other) => Math.hypot(place(other)[0] - x, place(other)[1] - z) >= far)) chosen.push(at);
    if (chosen.length === MOST_PLACES) break;
  }
  return chosen;
}

/** The best way to look from a cell; none where land shuts every picture. */
function bestFrom(land: Land, at: number): LandView[] {
  const { relief, footing, lens, aspect, eyeHeight, sun } = land;
  const [x, z] = [
    relief.x0 + (at % relief.columns) * relief.cell,
    relief.z0 + Math.floor(at / relief.columns) * relief.cell,
  ];
  const ground = footing.floors.floorBelow(x, z, Infinity);
  if (!Number.isFinite(ground)) return [];
  const eye: Vec3 = [x, ground + eyeHeight, z];
  const { left, right } = new Projection(throughLens(lens), aspect).edges;
  const half = Math.atan((right - left) / 2);
  const width = Math.max(relief.columns, relief.rows) * relief.cell;
  let best: LandView | null = null;
  let most = 0;
  for (let way = 0; way < WAYS; way += 1) {
    const pan = (2 * Math.PI * way) / WAYS;
    const rays = Array.from({ length: RAYS }, (_, i) =>
      lookAlong(relief, eye, pan + half * ((2 * i) / (RAYS - 1) - 1)),
    );
    const depth = rays.map(({ far }) => far).sort((a, b) => a - b)[RAYS >> 1]!;
    const whole = rays.filter(({ ends }) => ends >= ENDS * width);
    if (RAYS - whole.length > MOST_ENDING) continue;
    const skyline = whole.map(({ highest }) => Math.atan(highest));
    const terms: Terms = {
      depth: Math.min(1, depth / (DEEP * width)),
      'two sides': Math.min(1, (Math.max(...skyline) - Math.min(...skyline)) / LIVELY),
      light: litFrom(sun, pan),
      subject: 0,
      'room before it': 1,
    };
    if (rays.some(({ shut }) => shut) || terms['two sides'] < DULL) continue;
    const worth = terms.depth + terms['two sides'] + 0.5 * terms.light;
    if (worth <= most) continue;
    most = worth;
    // A skyline stands above the middle of a picture: the land is what it is about.
    const tilt = -0.12 * half;
    best = {
      camera: { pose: { position: eye, orientation: orientationOf({ pan, tilt, roll: 0 }) }, lens },
      terms,
      depth,
      from: 'ground',
    };
  }
  return best ? [best] : [];
}

/** What is seen along a direction: how far the land that shows reaches, how high it rises, whether it shuts the picture, and where it ends. */
function lookAlong({ x0, z0, cell, columns, rows, heights }: Relief, [x, y, z]: Vec3, pan: number) {
  const [dx, dz] = [-Math.sin(pan), -Math.cos(pan)];
  let [far, highest, shut, way] = [0, -Infinity, false, cell];
  for (; ; way += cell) {
    const [column, row] = [Math.round((x + dx * way - x0) / cell), Math.round((z + dz * way - z0) / cell)];
    if (column < 0 || row < 0 || column >= columns || row >= rows) break;
    const height = heights[row * columns + column];
    if (height === null || height === undefined) continue;
    const rise = (height - y) / way;
    if (way <= 3 * cell && rise > SHUT) shut = true;
    if (rise < highest) continue;
    highest = rise;
    far = way;
  }
  return { far, highest: Number.isFinite(highest) ? highest : 0, shut, ends: way };
}
