import { Matrix4, Vector3 } from 'three';
import type { Placement } from '../document/index.ts';
import { transformPart, type SceneJoint, type SceneModel, type ScenePart } from '../format/index.ts';
import { materialName } from './dress.ts';
import type { LitMaterials } from './key.ts';
import { withLandCover } from './land-cover.ts';
import { layered } from './layers.ts';
import { placementMatrix } from './placement.ts';

/** A model as it stands in the project. */
export interface PlacedModel {
  /** Identity of its row. */
  id: string;
  model: SceneModel;
  placement: Placement;
  /** What people said of its materials: is one lit? */
  lit?: LitMaterials;
}

/**
 * All models of a site as one, in metres, y up. Parts keep their names and learn which model they are of, and how many
 * others they lie on.
 */
export function assemble(placed: readonly PlacedModel[]): SceneModel {
  const out: SceneModel = { parts: [], materials: [], textures: [], rooms: [], storeys: [], joints: [], movements: [] };
  for (const { id, model, placement, lit = {} } of placed) {
    const [x, y, z] = model.origin ?? [0, 0, 0];
    // In 64 bits: a placement of minus and an origin of plus five hundred kilometres leave what is between them whole.
    const matrix = placementMatrix(placement).multiply(new Matrix4().makeTranslation(x, y, z));
    const material = out.materials.length;
    const texture = out.textures.length;
    const joint = out.joints!.length;
    for (const made of model.materials) {
      const decided = lit[materialName(made)];
      out.materials.push({
        ...made,
        ...(decided === undefined ? {} : { unlit: !decided }),
        texture: made.texture === null ? null : made.texture + texture,
        ...(made.maskTexture === undefined ? {} : { maskTexture: made.maskTexture + texture }),
        ...(made.emissiveTexture === undefined ? {} : { emissiveTexture: made.emissiveTexture + texture }),
      });
    }
    out.textures.push(...model.textures);
    for (const part of model.parts)
      out.parts.push({
        ...place(part, matrix),
        material: part.material + material,
        model: id,
        ...(part.joint === undefined ? {} : { joint: part.joint + joint }),
      });
    for (const made of model.joints ?? []) out.joints!.push(placeJoint(made, matrix, joint));
    for (const movement of model.movements ?? [])
      out.movements!.push({
        ...movement,
        model: id,
        tracks: movement.tracks.map((track) => ({ ...track, joint: track.joint + joint })),
      });
    // What a file says of rooms and storeys holds for the way up that it has them in.
    if (placement.up !== 'y') continue;
    for (const room of model.rooms ?? []) {
      const outline: number[] = [];
      const point = new Vector3();
      for (let i = 0; i < room.outline.length; i += 2) {
        point.set(room.outline[i]!, room.elevation, room.outline[i + 1]!).applyMatrix4(matrix);
        outline.push(point.x, point.z);
      }
      point.set(0, room.elevation, 0).applyMatrix4(matrix);
      out.rooms!.push({ ...room, area: room.area * placement.metresPerUnit ** 2, outline, elevation: point.y });
    }
    for (const storey of model.storeys ?? []) {
      const point = new Vector3(0, storey.elevation, 0).applyMatrix4(matrix);
      out.storeys!.push({ ...storey, elevation: point.y });
    }
  }
  return layered(withLandCover(out));
}

function place(part: ScenePart, matrix: Matrix4): ScenePart {
  const placed = { ...part, positions: part.positions.slice(), normals: part.normals.slice() };
  transformPart(placed, matrix);
  return placed;
}

/** A joint that hangs on none hangs in the model's axes, and these are where the model was put. */
function placeJoint(joint: SceneJoint, matrix: Matrix4, offset: number): SceneJoint {
  if (joint.parent !== null) return { ...joint, parent: joint.parent + offset };
  return { ...joint, hang: matrix.clone().multiply(new Matrix4().fromArray(joint.hang)).toArray() };
}
