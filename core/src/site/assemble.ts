import { Vector3, type Matrix4 } from 'three';
import type { Placement } from '../document/index.ts';
import { transformPart, type SceneModel, type ScenePart } from '../format/index.ts';
import { placementMatrix } from './placement.ts';

/** A model as it stands in the project. */
export interface PlacedModel {
  /** Identity of its row. */
  id: string;
  model: SceneModel;
  placement: Placement;
}

/** All models of a site as one, in metres, y up. Parts keep their names and learn which model they are of. */
export function assemble(placed: readonly PlacedModel[]): SceneModel {
  const out: SceneModel = { parts: [], materials: [], textures: [], rooms: [], storeys: [] };
  for (const { id, model, placement } of placed) {
    const matrix = placementMatrix(placement);
    const material = out.materials.length;
    const texture = out.textures.length;
    for (const made of model.materials)
      out.materials.push({ ...made, texture: made.texture === null ? null : made.texture + texture });
    out.textures.push(...model.textures);
    for (const part of model.parts)
      out.parts.push({ ...place(part, matrix), material: part.material + material, model: id });
    for (const room of model.rooms ?? []) {
      const outline: number[] = [];
      const point = new Vector3();
      for (let i = 0; i < room.outline.length; i += 2) {
        point.set(room.outline[i]!, room.elevation, room.outline[i + 1]!).applyMatrix4(matrix);
        outline.push(point.x, point.z);
      }
      point.set(0, room.elevation, 0).applyMatrix4(matrix);
      out.rooms!.push({ ...room, outline, elevation: point.y });
    }
    for (const storey of model.storeys ?? []) {
      const point = new Vector3(0, storey.elevation, 0).applyMatrix4(matrix);
      out.storeys!.push({ ...storey, elevation: point.y });
    }
  }
  return out;
}

function place(part: ScenePart, matrix: Matrix4): ScenePart {
  const placed = { ...part, positions: part.positions.slice(), normals: part.normals.slice() };
  transformPart(placed, matrix);
  return placed;
}
