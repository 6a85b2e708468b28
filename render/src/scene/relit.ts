import type { SiteMotion } from '@eskovan/core/action';
import type { SiteLight } from '@eskovan/core/document';
import { countTriangles, triangleSoup, type SceneModel } from '@eskovan/core/format';
import { daylight, LARGEST_LIT_ANEW, MOVED, MovedField, MovedLight, PlaceLight, SelfShade } from '@eskovan/core/survey';
import { boundsOf, joinBounds } from '@eskovan/core/geometry';
import { DataUtils, Matrix4, type BufferAttribute, type Group, type Mesh } from 'three';
import type { MeshShares } from './dimmed.ts';
import type { Relight } from './relight-data.ts';

interface Piece {
  mesh: Mesh;
  data: Relight;
  group: number;
  /** Its light as it moves; made when it moves first. */
  light: MovedLight | null;
  /** Where it was lit last. */
  at: Matrix4;
}

const REST = new Matrix4();
/** Things smaller than this are lit as one, metres. */
const SHARED = 5;

/** The pieces of a scene that move and are lit where they are. What is needed for it is made when something moves first. */
export class RelitMeshes {
  private readonly pieces: Piece[];
  private readonly sun: readonly number[];
  private readonly shades = new Map<number, SelfShade>();
  private readonly fields = new Map<number, MovedField>();
  private place: PlaceLight | null = null;

  constructor(
    scene: Group,
    private readonly model: SceneModel,
    private readonly motion: SiteMotion,
    private readonly light: SiteLight,
  ) {
    this.sun = daylight(light).sun;
    const all = countTriangles(model) > LARGEST_LIT_ANEW ? [] : (scene.children as Mesh[]);
    this.pieces = all.flatMap((mesh) => {
      const data = mesh.userData['relight'] as Relight | null | undefined;
      const group = mesh.userData['group'] as number;
      return data ? [{ mesh, data, group, light: null, at: REST.clone() }] : [];
    });
  }

  /**
   * Lights what has moved, where it is now.
   * @param hurried somebody waits: what must be found out once, a second or so, is left to the next picture
   * @returns whether the light of anything has changed
   */
  follow(hurried = false): boolean {
    if (hurried && !this.place) return false;
    let changed = false;
    for (const piece of this.pieces) {
      const { matrix } = piece.mesh;
      // What is not there has no light; it is lit when it comes.
      if (litAlike(matrix, piece.at) || Math.abs(matrix.determinant()) < 1e-9) continue;
      piece.at.copy(litAlike(matrix, REST) ? REST : matrix);
      this.lit(piece);
      changed = true;
    }
    return changed;
  }

  private lit(piece: Piece): void {
    const { data, group, at } = piece;
    if (at.equals(REST)) {
      this.write(piece, null);
      return;
    }
    this.place ??= new PlaceLight(this.model, this.light, (part) => this.motion.groupOf(part) < 0);
    piece.light ??= new MovedLight(this.fieldOf(piece), data, this.shadeOf(group), this.pieces.indexOf(piece));
    const count = data.sun.length;
    if (moved.length < MOVED * count) moved = new Float32Array(MOVED * count);
    this.write(piece, piece.light.at(at.elements, moved) ? moved : null);
  }

  /** Pieces of a small thing have one field of light, those of a long one each their own. */
  private fieldOf({ group, data }: Piece): MovedField {
    const known = this.fields.get(group);
    if (known) return known;
    const all = joinBounds(
      this.pieces.filter((one) => one.group === group).map((one) => boundsOf(one.data.positions)),
    )!;
    const small = Math.max(...all.max.map((value, k) => value - all.min[k]!)) < SHARED;
    const field = new MovedField(this.place!, small ? all : boundsOf(data.positions));
    if (small) this.fields.set(group, field);
    return field;
  }

  private shadeOf(group: number): SelfShade {
    let shade = this.shades.get(group);
    if (!shade) {
      const parts = this.model.parts.filter((part) => this.motion.groupOf(part) === group);
      this.shades.set(group, (shade = new SelfShade(triangleSoup({ ...this.model, parts }).soup)));
    }
    return shade;
  }

  /** @param change of its light; null as it was baked */
  private write({ mesh, data }: Piece, change: Float32Array | null): void {
    const color = mesh.geometry.getAttribute('color') as BufferAttribute;
    const ambient = mesh.geometry.getAttribute('ambient') as BufferAttribute | undefined;
    const shares = mesh.userData['shares'] as MeshShares | undefined;
    // What lamps dim is taken off of these, not of half floats: one of them less another one would be mostly noise.
    const [whole, finished] = [shares?.['color'] && threeEach(data), shares?.['ambient'] && threeEach(data)];
    for (let v = 0; v < data.sun.length; v += 1) {
      const sun = change ? change[MOVED * v + 3]! : data.sun[v]!;
      for (let k = 0; k < 3; k += 1) {
        const n = 3 * v + k;
        const falls = Math.max(0, data.ambient[n]! + (change ? change[MOVED * v + k]! : 0));
        const sends = data.working[n]! * (falls + this.sun[k]! * sun) + data.glow[n]!;
        put(color, v, k, sends);
        if (whole) whole[n] = sends;
        if (!ambient) continue;
        const withoutSun = data.finished[n]! * falls + data.glow[n]!;
        put(ambient, v, k, withoutSun);
        if (finished) finished[n] = withoutSun;
      }
      if (ambient) put(ambient, v, 3, Math.min(1, sun));
    }
    for (const [attribute, dims, numbers] of [
      [color, shares?.['color'], whole],
      [ambient, shares?.['ambient'], finished],
    ] as const) {
      if (attribute) attribute.needsUpdate = true;
      if (!dims || !numbers) continue;
      dims.vertices.forEach((v, i) => dims.whole.set(numbers.subarray(3 * v, 3 * v + 3), 3 * i));
    }
  }
}

/**
 * Do these put a thing where its light is the same? A recorded movement begins a rounding beside where the thing rests:
 * what rests needs no light of its own, and looking for one takes a second or more.
 */
function litAlike({ elements: a }: Matrix4, { elements: b }: Matrix4): boolean {
  return a.every((value, i) => Math.abs(value - b[i]!) <= (i >= 12 ? SAME_PLACE : SAME_TURN));
}
/** Metres: far less than light changes over. */
const SAME_PLACE = 1e-4;
/** Some roundings of numbers of 32 bits, as files have turns. */
const SAME_TURN = 1e-6;

const threeEach = ({ ambient }: Relight) => new Float32Array(ambient.length);

let moved: Float32Array = new Float32Array(0);

const put = ({ array }: BufferAttribute, v: number, k: number, value: number) => {
  (array as Uint16Array)[4 * v + k] = DataUtils.toHalfFloat(Math.min(MOST, value));
};
/** What a half float holds with room to spare. */
const MOST = 1000;
