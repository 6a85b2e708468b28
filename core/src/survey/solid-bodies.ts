import { LAND_WIDTH, seesThrough, triangleSoup, type SceneModel, type ScenePart } from '../format/index.ts';
import { enclosedVolume, planBoxOf, samePlace, takenApart } from '../geometry/index.ts';
import { FloorIndex } from './floor-index.ts';
import { coverTriangles } from './footing.ts';
import { HEAD_ROOM } from './levels.ts';

/** Things of more triangles than this are no blocks: nobody waits for finding out. */
const MOST_TRIANGLES = 20_000;
/** What is narrower than this has no place for a room in it, metres. */
const LEAST_WIDTH = 1;
/** What fills less of the smallest box about it is walls and roofs about something; a pyramid fills a third. */
const LEAST_FILL = 0.25;
/** What is as wide as land, and so many times as wide as high, is ground: what is dug into it is not filled. */
const FLAT = 10;

/**
 * What of a site is solid: closed bodies with their faces looking out, as blocks of a massing model are. There are no rooms
 * in them, whatever ground goes on below them. The walls of a house with rooms are such bodies, too; its rooms are outside
 * of all of them.
 */
export class SolidBodies {
  private readonly tops: FloorIndex;
  private readonly undersides: FloorIndex;

  private constructor(soup: Float32Array) {
    this.tops = new FloorIndex(coverTriangles(soup, (_, up) => up));
    this.undersides = new FloorIndex(coverTriangles(soup, (_, up) => !up));
  }

  /** @returns null where nothing is */
  static of(model: SceneModel): SolidBodies | null {
    const corners: number[] = [];
    for (const parts of things(model)) {
      if (parts.reduce((sum, { indices }) => sum + indices.length / 3, 0) > MOST_TRIANGLES) continue;
      const { soup: positions } = triangleSoup({ ...model, parts });
      const place = samePlace(positions);
      const indices = Uint32Array.from(place, (_, v) => v);
      for (const body of takenApart({ positions, indices }, place)) {
        const own = [...body.indices].flatMap((v) => [...positions.subarray(3 * v, 3 * v + 3)]);
        if (isBlock(own, enclosedVolume(body, place))) corners.push(...own);
      }
    }
    return corners.length > 0 ? new SolidBodies(Float32Array.from(corners)) : null;
  }

  /** Is a place inside of one? Over it are more tops than undersides then. Metres. */
  contains(x: number, y: number, z: number): boolean {
    const over = (index: FloorIndex) => index.surfacesAt(x, z, SAME).filter((surface) => surface > y).length;
    return over(this.tops) > over(this.undersides);
  }
}

/** A seam is met by both of its triangles, metres. */
const SAME = 1e-4;

/** The things of a site, each with all its materials: one block may have a roof of another. */
function things({ parts, materials }: SceneModel): Iterable<ScenePart[]> {
  const byName = new Map<string, ScenePart[]>();
  for (const part of parts) {
    if (seesThrough(materials[part.material]!)) continue;
    const name = `${part.model ?? ''}|${part.name}`;
    const known = byName.get(name);
    if (known) known.push(part);
    else byName.set(name, [part]);
  }
  return byName.values();
}

/** Is it large enough for a room, and neither walls about one nor ground? @param volume that it encloses, cubic metres */
function isBlock(corners: readonly number[], volume: number): boolean {
  if (volume === 0) return false;
  const [width, height, depth] = planBoxOf(corners).size;
  if (height < HEAD_ROOM || depth < LEAST_WIDTH) return false;
  if (width > LAND_WIDTH && width > FLAT * height) return false;
  return volume >= LEAST_FILL * width * height * depth;
}
