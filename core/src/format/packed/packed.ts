import { z } from 'zod';
import { FormatError } from '../errors.ts';
import { openBlocks, packBlocks, type BlockFormat } from './blocks.ts';
import { fromSixteen, toSixteen } from './sixteen.ts';
import type { ReadModel, SceneModel, ScenePart, SceneTrack } from '../scene-model.ts';

const count = z.int().min(0);
const triple = z.tuple([z.number(), z.number(), z.number()]);
const quadruple = z.tuple([z.number(), z.number(), z.number(), z.number()]);
const headerSchema = z.object({
  origin: triple,
  materials: z.array(
    z.object({
      name: z.string(),
      color: triple,
      opacity: z.number(),
      roughness: z.number(),
      metalness: z.number(),
      emissive: triple,
      doubleSided: z.boolean(),
      texture: z.int().nullable(),
      cutOut: z.number().optional(),
      maskTexture: count.optional(),
      emissiveTexture: count.optional(),
      unlit: z.boolean().optional(),
    }),
  ),
  textures: z.array(z.object({ mediaType: z.string(), bytes: count })),
  parts: z.array(
    z.object({
      name: z.string(),
      model: z.string().optional(),
      role: z.enum(['door', 'window', 'stair', 'terrain']).optional(),
      material: count,
      joint: count.optional(),
      layer: count.optional(),
      came: count.optional(),
      vertices: count,
      indices: count,
      uvs: z.boolean(),
      colors: z.boolean(),
      light: z.boolean(),
    }),
  ),
  rooms: z.array(z.object({ name: z.string(), elevation: z.number(), area: z.number(), outline: z.array(z.number()) })),
  storeys: z.array(z.object({ name: z.string(), elevation: z.number() })),
  cameras: z.array(
    z.object({
      name: z.string(),
      position: triple,
      orientation: quadruple,
      verticalAngle: z.number().nullable(),
      height: z.number().optional(),
      aspect: z.number().nullable(),
    }),
  ),
  joints: z.array(
    z.object({
      name: z.string(),
      parent: count.nullable(),
      hang: z.array(z.number()).length(16),
      rest: z.object({ translation: triple, rotation: quadruple, scale: triple }),
    }),
  ),
  movements: z.array(
    z.object({
      name: z.string(),
      model: z.string().optional(),
      duration: z.number(),
      targets: z.array(z.string()),
      tracks: z.array(
        z.object({
          joint: count,
          of: z.enum(['translation', 'rotation', 'scale']),
          between: z.enum(['linear', 'step', 'cubic']),
          keys: count,
          values: count,
        }),
      ),
    }),
  ),
});

/**
 * The packed model: what the picture needs, ready to be handed to the graphics card, so that a project opens without
 * reading its source again. “ESKM”, and the arrays in the order of the header.
 */
const PACKED_MODEL: BlockFormat<z.infer<typeof headerSchema>> = {
  magic: 0x4d4b5345,
  version: 4,
  header: headerSchema,
  name: 'a packed model',
  bad: (reason) => new FormatError('damaged', 'packed model', reason, 'It will be made again from the source.'),
};

/** A packed model read back: with what came along in its file, empty where it was packed without. */
export type UnpackedModel = Required<SceneModel> & Pick<ReadModel, 'cameras'>;

/** Normals and the sun's share as one byte. */
function toSigned(values: Float32Array): Int8Array {
  const out = new Int8Array(values.length);
  for (let i = 0; i < out.length; i += 1) out[i] = Math.round(values[i]! * 127);
  return out;
}

function fromSigned(block: ArrayBuffer): Float32Array {
  const values = new Int8Array(block);
  const out = new Float32Array(values.length);
  for (let i = 0; i < out.length; i += 1) out[i] = values[i]! / 127;
  return out;
}

export function packModel(model: SceneModel & Partial<UnpackedModel>): Uint8Array<ArrayBuffer> {
  const header = {
    origin: model.origin ?? [0, 0, 0],
    materials: model.materials,
    textures: model.textures.map(({ mediaType, bytes }) => ({ mediaType, bytes: bytes.byteLength })),
    parts: model.parts.map((part) => ({
      name: part.name,
      ...(part.model === undefined ? {} : { model: part.model }),
      ...(part.role === undefined ? {} : { role: part.role }),
      material: part.material,
      ...(part.joint === undefined ? {} : { joint: part.joint }),
      ...(part.layer === undefined ? {} : { layer: part.layer }),
      ...(part.came === undefined ? {} : { came: part.came }),
      vertices: part.positions.length / 3,
      indices: part.indices.length,
      uvs: part.uvs !== null,
      colors: Boolean(part.colors),
      light: part.light !== null,
    })),
    rooms: model.rooms ?? [],
    storeys: model.storeys ?? [],
    cameras: model.cameras ?? [],
    joints: model.joints ?? [],
    movements: (model.movements ?? []).map((movement) => ({
      ...movement,
      tracks: movement.tracks.map(({ joint, of, between, times, values }) => ({
        joint,
        of,
        between,
        keys: times.length,
        values: values.length,
      })),
    })),
  };
  const blocks: (Uint8Array | Float32Array | Uint16Array | Int8Array | Uint32Array)[] = [];
  const push = (block: (typeof blocks)[number]) => blocks.push(block);
  for (const texture of model.textures) push(texture.bytes);
  for (const part of model.parts) {
    push(part.positions);
    push(toSigned(part.normals));
    if (part.uvs) push(part.uvs);
    if (part.colors) push(toSixteen(part.colors));
    if (part.light) {
      push(toSixteen(part.light.ambient));
      push(toSigned(part.light.sun));
    }
    push(part.indices);
  }
  for (const { tracks } of model.movements ?? [])
    for (const { times, values } of tracks) {
      push(times);
      push(values);
    }
  return packBlocks(PACKED_MODEL, header, blocks);
}

/** @throws FormatError when the bytes are not a packed model of this version */
export function unpackModel(bytes: Uint8Array): UnpackedModel {
  const { header, take } = openBlocks(bytes, PACKED_MODEL);
  const textures = header.textures.map(({ mediaType, bytes: length }) => ({
    mediaType,
    bytes: new Uint8Array(take(length)),
  }));
  const parts = header.parts.map(
    ({ name, model, role, material, joint, layer, came, vertices, indices, uvs, colors, light }): ScenePart => ({
      name,
      ...(model === undefined ? {} : { model }),
      ...(role === undefined ? {} : { role }),
      material,
      ...(joint === undefined ? {} : { joint }),
      ...(layer === undefined ? {} : { layer }),
      ...(came === undefined ? {} : { came }),
      positions: new Float32Array(take(vertices * 12)),
      normals: fromSigned(take(vertices * 3)),
      uvs: uvs ? new Float32Array(take(vertices * 8)) : null,
      colors: colors ? fromSixteen(take(vertices * 6)) : null,
      light: light ? { ambient: fromSixteen(take(vertices * 6)), sun: fromSigned(take(vertices)) } : null,
      indices: new Uint32Array(take(indices * 4)),
    }),
  );
  const movements = header.movements.map(({ name, model, duration, targets, tracks }) => ({
    name,
    ...(model === undefined ? {} : { model }),
    duration,
    targets,
    tracks: tracks.map(({ joint, of, between, keys, values }): SceneTrack => ({
      joint,
      of,
      between,
      times: new Float32Array(take(keys * 4)),
      values: new Float32Array(take(values * 4)),
    })),
  }));
  const { origin, materials, rooms, storeys, cameras, joints } = header;
  return { origin, materials, textures, parts, rooms, storeys, cameras, joints, movements };
}
