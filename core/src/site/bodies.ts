import { facesOf, type SceneModel } from '../format/index.ts';
import { boundsOfBody, middle, sizesOf, takenApart, type Body } from '../geometry/index.ts';

/** Files of up to so many triangles are taken apart. */
const MOST_TRIANGLES = 300_000;

/** The bodies of a model: what of each part hangs together by its corners; of a very large one its parts. */
export function bodiesOf(parts: SceneModel['parts']): readonly Body[] {
  const count = parts.reduce((sum, { indices }) => sum + indices.length / 3, 0);
  return count > MOST_TRIANGLES ? parts : parts.flatMap((part) => takenApart(part));
}

/** As many other bodies are asked whether they rise over the land, and so many of them have to: a roof has all under it. */
const ASKED = 60;
const RISE = 0.7;

/** On a plate of so many bodies there is a town, or a product of many pieces. */
const MANY_BODIES = 60;

/** What lies under all bodies of a model, which most of them rise over. */
export interface Ground {
  /** The bodies that are land: nothing where nothing stands on it. */
  land: ReadonlySet<Body>;
  /** There is no land, but many bodies stand on one plate. */
  plate: boolean;
}

/** @param up number of the axis that is taken as up @param plan extent of all */
export function groundOf(bodies: readonly Body[], up: 1 | 2, plan: readonly [number, number]): Ground {
  const under = bodies.filter((body) => isUnderAll(body, up, plan));
  const isHilly = (body: Body) => heightOf(body, up) >= HILLY * Math.max(...plan);
  const sheets = under.filter((body) => isHilly(body) && isOneSided(body, up));
  const land = new Set(sheets.filter((body) => carries(body, bodies, sheets, up)));
  if (land.size > 0 || bodies.length <= MANY_BODIES) return { land, plate: false };
  const plates = under.filter((body) => !isHilly(body));
  return { land, plate: plates.some((body) => carries(body, bodies, plates, up)) };
}

/** Do most bodies rise over one? @param apart these are not asked */
function carries(body: Body, bodies: readonly Body[], apart: readonly Body[], up: 1 | 2): boolean {
  const others = bodies.filter((other) => !apart.includes(other));
  const every = Math.max(1, Math.floor(others.length / ASKED));
  const asked = others.filter((_, i) => i % every === 0);
  return asked.filter((other) => risesOver(other, body, up)).length > RISE * asked.length;
}

/** Is the top of a body over the land beside its middle? */
function risesOver(body: Body, { positions: p, indices }: Body, up: 1 | 2): boolean {
  const bounds = boundsOfBody(body);
  const across = up === 1 ? 2 : 1;
  const { 0: x, [across]: y } = middle(bounds);
  let [nearest, height] = [Infinity, -Infinity];
  for (const corner of indices) {
    const away = (p[3 * corner]! - x) ** 2 + (p[3 * corner + across]! - y) ** 2;
    if (away < nearest) [nearest, height] = [away, p[3 * corner + up]!];
  }
  return bounds.max[up] > height;
}

/** How high a body is with an axis up. */
export const heightOf = (body: Body, up: 1 | 2): number => sizesOf(boundsOfBody(body))[up];

/** Land reaches under so much of all there is, each way. */
const UNDER = 0.8;
/** It rises by this part of its width: a plate is no land. */
const HILLY = 0.003;
/** And is one side alone: a body has an underside. */
const OTHER_SIDE = 0.01;

/** Is a body a sheet without walls? */
function isOneSided(body: Body, up: 1 | 2): boolean {
  const { walls, down } = facesOf(body, up);
  return !walls && Math.min(down, 1 - down) <= OTHER_SIDE;
}

function isUnderAll(body: Body, up: 1 | 2, plan: readonly [number, number]): boolean {
  const sizes = sizesOf(boundsOfBody(body));
  return sizes[0] >= UNDER * plan[0] && sizes[up === 1 ? 2 : 1] >= UNDER * plan[1];
}
