import type { Bounds, ModelBody, Vec3 } from '../document/index.ts';
import { boundsOf, joinBounds, type TriangleSoup } from '../geometry/index.ts';

export interface SceneTexture {
  bytes: Uint8Array;
  mediaType: string;
}

/** What the renderer needs to know of a material. Colours are linear, 0…1. */
export interface SceneMaterial {
  name: string;
  color: [number, number, number];
  /** 1 is solid; below that one sees through. */
  opacity: number;
  roughness: number;
  metalness: number;
  emissive: [number, number, number];
  doubleSided: boolean;
  /** Index into {@link SceneModel.textures}, or null. It is multiplied by the colour. */
  texture: number | null;
  /** Cut out where the picture's alpha is below this, 0…1: leaves, railings, people. Absent where nothing is. */
  cutOut?: number;
  /** A picture whose alpha (or brightness, where it is opaque) says what is cut out, where {@link texture} does not. */
  maskTexture?: number;
  /** A picture that what shines is multiplied by. */
  emissiveTexture?: number;
  /** Its colours hold their light already, as photographed ones do: it is shown as it is, and nothing lights it. */
  unlit?: boolean;
}

/** Light that was baked into a part: what a white surface there sends out, linear. */
export interface BakedLight {
  /** Everything but the sun's own rays: sky, lamps, light thrown back. Three numbers a vertex. */
  ambient: Float32Array;
  /** How much of the sun reaches a vertex, 0…1. */
  sun: Float32Array;
  /** What of `ambient` is there because of lamps that can be dimmed, one after another; null for one that is off. */
  shares?: readonly (Float32Array | null)[];
}

/** One drawable piece, in the file's axes or, once placed, in the project's: metres, y up, right-handed. */
export interface ScenePart {
  /** Names from the root down, joined by " / ". */
  name: string;
  /** Identity of the model it belongs to, once placed among others. */
  model?: string;
  /** What it is, where the file says so. */
  role?: 'door' | 'window' | 'stair' | 'terrain';
  material: number;
  /** The joint that carries it: an index into {@link SceneModel.joints}. */
  joint?: number;
  /** How many others it lies on in one plane, once placed among them; it is drawn in front of these. */
  layer?: number;
  /** Three numbers a vertex. */
  positions: Float32Array;
  normals: Float32Array;
  /** Two numbers a vertex, or null. */
  uvs: Float32Array | null;
  /** Linear vertex colours, three numbers a vertex, or null: they multiply the material's. */
  colors?: Float32Array | null;
  light: BakedLight | null;
  indices: Uint32Array;
  /** Triangles that it came with, where it has been cut finer since, or been given backs; see {@link cameWith}. */
  came?: number;
}

/** How many triangles a part has in its file. */
export const cameWith = ({ came, indices }: Pick<ScenePart, 'came' | 'indices'>): number => came ?? indices.length / 3;

/** A camera that came with a file, in the file's own 64-bit coordinates. */
export interface SceneCamera {
  name: string;
  position: [number, number, number];
  orientation: [number, number, number, number];
  /** Full vertical view angle, radians; null for a parallel projection. */
  verticalAngle: number | null;
  /** Height of what a parallel projection sees, in the file's unit. */
  height?: number | undefined;
  /** Width over height, where the file says it. */
  aspect: number | null;
}

/** A room that the file itself describes. */
/** A room in the file's own unit and y up or, once placed, in metres. */
export interface SceneRoom {
  name: string;
  /** Height of its floor. */
  elevation: number;
  area: number;
  /** Closed outline in plan, two numbers (x, z) a corner. */
  outline: number[];
}

export interface SceneStorey {
  name: string;
  elevation: number;
}

/** Something that a movement moves, with all that hangs on it. */
export interface SceneJoint {
  name: string;
  /** The joint that it hangs on: an index into the joints, smaller than its own; null where it hangs on none. */
  parent: number | null;
  /** From the parent's axes (else the model's) to those in which the joint moves: 16 numbers, column by column. */
  hang: number[];
  /** Where it is while nothing moves it. */
  rest: {
    translation: [number, number, number];
    rotation: [number, number, number, number];
    scale: [number, number, number];
  };
}

/** How one joint changes in one respect. */
export interface SceneTrack {
  /** Index into the joints. */
  joint: number;
  of: keyof SceneJoint['rest'];
  /** What lies between two keys; cubic keys bring their tangents along: in, value, out. */
  between: 'linear' | 'step' | 'cubic';
  /** Seconds, rising. */
  times: Float32Array;
  /** Three numbers a key, four for a rotation; three times as many where cubic. */
  values: Float32Array;
}

/** A movement that came with a file. */
export interface SceneMovement {
  name: string;
  /** Identity of the model that it came with, once placed among others. */
  model?: string;
  /** Seconds. */
  duration: number;
  /** Names of what it moves. */
  targets: string[];
  tracks: SceneTrack[];
}

/** A model, whatever file it came from. Document and format stay apart: this is never saved as it is. */
export interface SceneModel {
  /**
   * What was taken off all coordinates of the file before they became 32-bit floats, 64-bit, in the file's own unit and
   * axes; nothing where absent. What the file says lies at `position + origin`.
   */
  origin?: Vec3;
  parts: ScenePart[];
  materials: SceneMaterial[];
  textures: SceneTexture[];
  rooms?: SceneRoom[];
  storeys?: SceneStorey[];
  joints?: SceneJoint[];
  movements?: SceneMovement[];
}

/** A model fresh from its file, with everything else that the file held. */
export interface ReadModel extends SceneModel {
  cameras: SceneCamera[];
  declares: ModelBody['declares'];
  /** What could not be read, in plain words. */
  notes: string[];
}

/** As many movements are named with a model, and as many things that each moves; the packed model has them all. */
const MOST_MOVEMENTS = 200;
const MOST_TARGETS = 50;

/** What a model's document says of the movements that came with its file. */
export const listMovements = ({ movements = [] }: Pick<SceneModel, 'movements'>): ModelBody['movements'] =>
  movements
    .slice(0, MOST_MOVEMENTS)
    .map(({ name, duration, targets }) => ({ name, duration, targets: targets.slice(0, MOST_TARGETS) }));

export const PLAIN_MATERIAL: SceneMaterial = {
  name: 'Plain',
  color: [0.6, 0.58, 0.55],
  opacity: 1,
  roughness: 0.9,
  metalness: 0,
  emissive: [0, 0, 0],
  doubleSided: true,
  texture: null,
};

/** Extent of a model in its file's own coordinates, 64-bit; null for one without parts. */
export function ownBounds({ parts, origin = [0, 0, 0] }: SceneModel): Bounds | null {
  const bounds = joinBounds(parts.map(({ positions }) => boundsOf(positions)));
  const own = (corner: Vec3) => corner.map((value, k) => value + origin[k]!) as Vec3;
  return bounds && { min: own(bounds.min), max: own(bounds.max) };
}

export function countTriangles(model: Pick<SceneModel, 'parts'>): number {
  return model.parts.reduce((sum, part) => sum + part.indices.length / 3, 0);
}

/** Does it give off light? */
export const glows = ({ emissive }: Pick<SceneMaterial, 'emissive'>): boolean => Math.max(...emissive) > 0;

/** Is it glass, or as clear? */
export const isGlass = ({ opacity }: Pick<SceneMaterial, 'opacity'>): boolean => opacity < 0.9;

/** Does one see through it, and light pass: glass, and what is cut out of a picture? */
export const seesThrough = (material: SceneMaterial): boolean => isGlass(material) || material.cutOut !== undefined;

/** Why one sees through a triangle; 0 where one does not. */
export const SEEN_THROUGH = { glass: 1, cutOut: 2 } as const;

/** All triangles of some parts, which of them one sees through, and which part (of those wanted) each is of. */
export function triangleSoup(
  model: SceneModel,
  wanted: (part: ScenePart) => boolean = () => true,
): { soup: TriangleSoup; seeThrough: Uint8Array; partOf: Uint32Array } {
  const parts = model.parts.filter(wanted);
  const count = parts.reduce((sum, part) => sum + part.indices.length / 3, 0);
  const soup = new Float32Array(count * 9);
  const seeThrough = new Uint8Array(count);
  const partOf = new Uint32Array(count);
  let triangle = 0;
  for (const [number, part] of parts.entries()) {
    const material = model.materials[part.material]!;
    const clear = isGlass(material) ? SEEN_THROUGH.glass : seesThrough(material) ? SEEN_THROUGH.cutOut : 0;
    const { positions, indices } = part;
    for (let k = 0; k < indices.length; k += 3) {
      for (let corner = 0; corner < 3; corner += 1) {
        const v = indices[k + corner]! * 3;
        const o = triangle * 9 + corner * 3;
        soup[o] = positions[v]!;
        soup[o + 1] = positions[v + 1]!;
        soup[o + 2] = positions[v + 2]!;
      }
      seeThrough[triangle] = clear;
      partOf[triangle] = number;
      triangle += 1;
    }
  }
  return { soup, seeThrough, partOf };
}
