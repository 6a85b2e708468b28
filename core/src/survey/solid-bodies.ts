import { LAND_WIDTH, seesThrough, type SceneModel, type ScenePart } from '../format/index.ts';
import { enclosedVolume, planBoxOf, samePlace, takenApart, type Body } from '../geometry/index.ts';
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
    for (const { positions, indices } of things(model)) {
      if (indices.length > 3 * MOST_TRIANGLES) continue;
      const place = samePlace(positions);
      for (const body of takenApart({ positions, indices }))
        if (isBlock(body, place))
          for (const v of body.indices) corners.push(positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!);
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
function* things({ parts, materials }: SceneModel): Generator<Body> {
  const byName = new Map<string, ScenePart[]>();
  for (const part of parts) {
    if (seesThrough(materials[part.material]!)) continue;
    const name = `${part.model ?? ''}|${part.name}`;
    const known = byName.get(name);
    if (known) known.push(part);
    else byName.set(name, [part]);
  }
  for (const [first, ...rest] of byName.values()) {
    if (rest.length === 0) {
      yield first!;
      continue;
    }
    const all = [first!, ...rest];
    const positions = new Float32Array(all.reduce((sum, part) => sum + part.positions.length, 0));
    const indices: number[] = [];
    let at = 0;
    for (const part of all) {
      positions.set(part.positions, at);
      for (const v of part.indices) indices.push(v + at / 3);
      at += part.positions.length;
    }
    yield { positions, indices: Uint32Array.from(indices) };
  }
}

/** Is it large enough for a room, and neither walls about one nor ground? */
function isBlock(body: Body, place: Uint32Array): boolean {
  const points = new Float32Array(3 * body.indices.length);
  body.indices.forEach((v, i) => points.set(body.positions.subarray(3 * v, 3 * v + 3), 3 * i));
  const [width, height, depth] = planBoxOf(points).size;
  if (height < HEAD_ROOM || depth < LEAST_WIDTH) return false;
  if (width > LAND_WIDTH && width > FLAT * height) return false;
  return enclosedVolume(body, place) >= LEAST_FILL * width * height * depth;
}
