import { cameWith, glows, seesThrough, type SceneModel, type ScenePart } from '../../format/index.ts';
import { cornerArea, TRIANGLE } from '../../geometry/index.ts';
import { unlitLight } from './daylight.ts';
import { firstOfSides, samePlaces, towardsCentres, type Contacts } from './even-out.ts';
import { emissionOf, findGlow, type Lamp } from './lamps.ts';
import { partAtContacts } from './part-at-contacts.ts';
import { isSheet, withBacks } from './sheets.ts';
import { StandingFaces } from './standing.ts';
import { isLit, type SiteLight } from '../../document/index.ts';
import { subdivide, subdividedCount } from './subdivide.ts';

/** A finer mesh than this is not worth its drawing time, unless the model came with more. */
const MOST_TRIANGLES = 120_000;
/** A model of more triangles is fine enough as it came. */
const FINE_ENOUGH = 300_000;
/** Edges wanted, from fine to coarse; the first that fits the budget is taken. */
const EDGES = [0.7, 0.8, 0.9, 1, 1.2, 1.5, 2, 2.5, 4, 8];
/** The same of a rough light. */
const ROUGH_EDGES = EDGES.filter((edge) => edge >= 2);
/** Where others stand on parts these are cut once more: into so many times the triangles that are counted before, at most. */
const AT_CONTACTS = 1.4;
/** And where edges meet corners of others once more, when light is finished: so many times those. */
const AT_SEAMS = 1.12;
/** No wall throws back more than this of its light: fresh plaster (common practice, no source). */
const WHITEST = 0.88;
/** What a picture on a surface throws back on average, before its colour: pictures are not read here. */
const PICTURED = 0.55;

const NOTHING = new Float32Array(0);

/** A part on finer triangles, with what its light needs. */
export interface LitPart {
  fine: ScenePart;
  /** Nothing lights it: its light is known. */
  unlit: boolean;
  /** For every vertex the first one at its place; each itself where light is known already. */
  first: Uint32Array;
  /** What lies under others that stand on it, where there is such: see `partAtContacts`. */
  contacts: Contacts | null;
  /** From every vertex into its faces, metres; nothing where light is known already. */
  inward: Float32Array;
  /** Number of its first vertex among all. */
  start: number;
}

/** A lamp, and the numbers of the lights that it is lit in. */
export interface SharedLamp extends Lamp {
  lights: number[];
}

/** Triangles that light is to be found for: what is unlit costs nothing, however much there is of it. */
export const litTriangles = ({ parts, materials }: SceneModel): number =>
  parts.reduce((sum, { material, indices }) => sum + (materials[material]!.unlit ? 0 : indices.length / 3), 0);

/** The surfaces that light falls on and comes back from. */
export class LightMesh {
  readonly model: SceneModel;
  readonly parts: readonly LitPart[];
  /** Vertices, all parts in a row. */
  readonly count: number;
  /** Triangles that stop light. */
  readonly soup: Float32Array;
  /** Three vertices a triangle of the soup: the first ones at their places. */
  readonly corners: Uint32Array;
  /** The same, each vertex by itself: it has the normal of its own face. */
  readonly vertices: Uint32Array;
  /** Share of the light that a triangle throws back: red, green, blue. */
  readonly albedo: Float32Array;
  /** What a triangle gives off itself, or shows because it is unlit, in each of the lights. */
  readonly glows: readonly Float32Array[];
  /** One where a triangle is seen to glow in some of the lights, also where a lamp gives its light: a bulb, a strip. */
  readonly seenToGlow: Uint8Array;
  /** One where a triangle is lit from behind as from before: sheets that have got no back of their own. */
  readonly twoSided: Uint8Array;
  readonly lamps: readonly SharedLamp[];
  /** Area that each vertex stands for, square metres. */
  readonly area: Float32Array;

  /** It came on triangles fine enough: none was cut, and sheets have got no backs. */
  readonly asItCame: boolean;
  /** The parts that stop light, in the order of the soup. */
  private readonly stops: readonly LitPart[];

  /**
   * @param cut finely, also where things stand; roughly, for a light that is to be there soon; or not at all: triangles of
   *   a model that has been cut and lit
   */
  constructor(given: SceneModel, lights: readonly SiteLight[], cut: 'finely' | 'roughly' | 'not' = 'finely') {
    const fineEnough = litTriangles(given) > FINE_ENOUGH;
    this.asItCame = fineEnough;
    const asItIs = fineEnough || cut === 'not';
    const model = asItIs ? given : withBacks(given);
    const budget = Math.max(MOST_TRIANGLES, litTriangles(model) * 1.5);
    const isUnlit = (part: ScenePart) => model.materials[part.material]!.unlit ?? false;
    const toCut = model.parts.filter((part) => !isUnlit(part));
    const edge =
      (cut === 'roughly' ? ROUGH_EDGES : EDGES).find(
        (e) => AT_SEAMS * AT_CONTACTS * toCut.reduce((sum, part) => sum + subdividedCount(part, e), 0) <= budget,
      ) ?? EDGES.at(-1)!;
    let start = 0;
    this.model = model;
    const standing = asItIs || cut === 'roughly' ? null : new StandingFaces(model);
    this.parts = model.parts.map((part, i): LitPart => {
      const unlit = isUnlit(part);
      const divided = asItIs || unlit ? part : subdivide(part, edge);
      const parted = standing && !unlit ? partAtContacts(divided, standing) : null;
      const made = parted?.part ?? divided;
      const fine = made === part ? part : { ...made, came: cameWith(given.parts[i]!) };
      const size = fine.positions.length / 3;
      // What rays set out from is asked for only where light is to be found.
      const known = cut === 'not' || unlit;
      const places = known ? Uint32Array.from({ length: size }, (_, v) => v) : samePlaces(fine);
      const contacts = parted?.sides.some((side) => side > 0) ? { sides: parted.sides, places } : null;
      const first = contacts ? firstOfSides(contacts) : places;
      const inward = known ? NOTHING : towardsCentres(fine);
      start += size;
      return { fine, unlit, first, contacts, inward, start: start - size };
    });
    this.count = start;
    this.stops = this.parts.filter(({ fine }) => !seesThrough(model.materials[fine.material]!));
    const triangles = this.stops.reduce((sum, { fine }) => sum + fine.indices.length / 3, 0);
    this.soup = new Float32Array(triangles * TRIANGLE);
    this.corners = new Uint32Array(3 * triangles);
    this.vertices = new Uint32Array(3 * triangles);
    this.albedo = new Float32Array(3 * triangles);
    this.glows = lights.map(() => new Float32Array(3 * triangles));
    const unlit = lights.map(unlitLight);
    this.seenToGlow = new Uint8Array(triangles);
    this.twoSided = new Uint8Array(triangles);
    this.area = new Float32Array(this.count);
    const whole = { ...model, parts: this.parts.map(({ fine }) => fine) };
    const shining = lights.map(({ lamps }) => findGlow(whole, (part) => isLit(lamps, part)));
    this.lamps = sharedLamps(shining.map(({ lamps }) => lamps));
    const litAtAll = (part: ScenePart) => lights.some(({ lamps }) => isLit(lamps, part));
    const glowsIn = (part: ScenePart, ...at: [number, number, number]) =>
      shining.flatMap(({ isSurface }, i) =>
        isLit(lights[i]!.lamps, part) && isSurface(...at) ? [this.glows[i]!] : [],
      );
    let at = 0;
    for (const part of this.stops) {
      const from = at;
      at = this.enter(part, at, glowsIn, unlit);
      const { fine } = part;
      if (part.unlit || (glows(model.materials[fine.material]!) && litAtAll(fine))) this.seenToGlow.fill(1, from, at);
    }
  }

  /** The sheet that each triangle of the soup is of, from 1; 0 for none. */
  sheets(): Uint32Array {
    const sheets = new Uint32Array(this.soup.length / TRIANGLE);
    let at = 0;
    for (const { fine } of this.stops) {
      const end = at + fine.indices.length / 3;
      if (isSheet(fine)) sheets.fill(at + 1, at, end);
      at = end;
    }
    return sheets;
  }

  /** Takes the triangles of a part. Returns the number of the next one. */
  private enter(
    { fine, first, start, unlit }: LitPart,
    from: number,
    glowsIn: (part: ScenePart, ...at: [number, number, number]) => Float32Array[],
    unlitIn: readonly number[],
  ): number {
    const { positions: p, normals, indices, colors } = fine;
    const material = this.model.materials[fine.material]!;
    const emission = emissionOf(material);
    const glows = Math.max(...emission) > 0;
    const pictured = material.texture === null ? 1 : PICTURED;
    let at = from;
    for (let t = 0; t < indices.length; t += 3, at += 1) {
      for (let k = 0; k < 3; k += 1) {
        const v = indices[t + k]!;
        for (let n = 0; n < 3; n += 1) this.soup[at * TRIANGLE + 3 * k + n] = p[3 * v + n]!;
        this.corners[3 * at + k] = start + first[v]!;
        this.vertices[3 * at + k] = start + v;
        const tint = colors
          ? (colors[3 * indices[t]! + k]! + colors[3 * indices[t + 1]! + k]! + colors[3 * indices[t + 2]! + k]!) / 3
          : 1;
        const color = material.color[k]! * pictured * tint;
        if (unlit) this.glows.forEach((glow, i) => (glow[3 * at + k] = color * unlitIn[i]!));
        else this.albedo[3 * at + k] = Math.min(WHITEST, color);
      }
      if (glows) for (const glow of glowsIn(fine, ...middleOf(this.soup, at))) glow.set(emission, 3 * at);
      this.twoSided[at] = (this.asItCame || unlit) && material.doubleSided ? 1 : 0;
      this.orient(at, normals, indices, t);
      const o = at * TRIANGLE;
      const share = cornerArea(this.soup, o, o + 3, o + 6) / 3;
      for (let k = 0; k < 3; k += 1) this.area[this.corners[3 * at + k]!]! += share;
    }
    return at;
  }

  /** Which side is the front is said by the normals: files wind their faces as they like. */
  private orient(at: number, normals: Float32Array, indices: Uint32Array, t: number): void {
    const s = this.soup;
    const o = at * TRIANGLE;
    const edge = (k: number, n: number) => s[o + 3 * k + n]! - s[o + n]!;
    const n = [0, 1, 2].map((k) => [0, 1, 2].reduce((sum, c) => sum + normals[3 * indices[t + c]! + k]!, 0));
    const facing =
      (edge(1, 1) * edge(2, 2) - edge(1, 2) * edge(2, 1)) * n[0]! +
      (edge(1, 2) * edge(2, 0) - edge(1, 0) * edge(2, 2)) * n[1]! +
      (edge(1, 0) * edge(2, 1) - edge(1, 1) * edge(2, 0)) * n[2]!;
    if (facing >= 0) return;
    for (let k = 0; k < 3; k += 1) [s[o + 3 + k], s[o + 6 + k]] = [s[o + 6 + k]!, s[o + 3 + k]!];
    for (const c of [this.corners, this.vertices]) [c[3 * at + 1], c[3 * at + 2]] = [c[3 * at + 2]!, c[3 * at + 1]!];
  }
}

/** The lamps of several lights: what is lit in some of them is looked for once. */
function sharedLamps(lights: readonly (readonly Lamp[])[]): SharedLamp[] {
  const known = new Map<string, SharedLamp>();
  for (const [i, lamps] of lights.entries())
    for (const lamp of lamps) {
      const key = [...lamp.position, ...lamp.color].join(',');
      const same = known.get(key);
      if (same) same.lights.push(i);
      else known.set(key, { ...lamp, lights: [i] });
    }
  return [...known.values()];
}

/** Middle of a triangle of a soup. */
function middleOf(s: Float32Array, at: number): [number, number, number] {
  const mean = (k: number) => (s[at * TRIANGLE + k]! + s[at * TRIANGLE + 3 + k]! + s[at * TRIANGLE + 6 + k]!) / 3;
  return [mean(0), mean(1), mean(2)];
}
