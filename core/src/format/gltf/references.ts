import { z } from 'zod';
import { issueWords } from '../../document/index.ts';
import { FormatError } from '../errors.ts';
import { READABLE } from './extensions.ts';

const index = z.int().min(0);
const numbers = (length: number) => z.array(z.number()).length(length);

/** The part of glTF 2.0 that the reader relies on; unknown members pass. Source: the schemas of glTF 2.0 §5. */
const gltfSchema = z.object({
  asset: z.object({ version: z.string() }),
  extensionsRequired: z.array(z.string()).optional(),
  scenes: z.array(z.object({ nodes: z.array(index).optional() })).optional(),
  nodes: z
    .array(
      z.object({
        children: z.array(index).optional(),
        mesh: index.optional(),
        matrix: numbers(16).optional(),
        translation: numbers(3).optional(),
        rotation: numbers(4).optional(),
        scale: numbers(3).optional(),
      }),
    )
    .optional(),
  meshes: z
    .array(
      z.object({
        primitives: z
          .array(
            z.object({
              attributes: z.record(z.string(), index),
              indices: index.optional(),
              material: index.optional(),
              mode: z.int().min(0).max(6).optional(),
            }),
          )
          .min(1),
      }),
    )
    .optional(),
  accessors: z
    .array(
      z.object({
        bufferView: index.optional(),
        byteOffset: index.optional(),
        componentType: z.literal([5120, 5121, 5122, 5123, 5125, 5126]),
        count: z.int().min(1),
        type: z.enum(['SCALAR', 'VEC2', 'VEC3', 'VEC4', 'MAT2', 'MAT3', 'MAT4']),
      }),
    )
    .optional(),
  bufferViews: z
    .array(
      z.object({
        buffer: index,
        byteOffset: index.optional(),
        byteLength: z.int().min(1),
        byteStride: z.int().min(4).max(252).optional(),
        extensions: z.record(z.string(), z.unknown()).optional(),
      }),
    )
    .optional(),
  buffers: z.array(z.object({ uri: z.string().optional(), byteLength: z.int().min(1) })).optional(),
  images: z.array(z.object({ uri: z.string().optional(), bufferView: index.optional() })).optional(),
  materials: z.array(z.unknown()).optional(),
  animations: z
    .array(
      z.object({
        channels: z.array(z.object({ sampler: index, target: z.object({ node: index.optional(), path: z.string() }) })),
        samplers: z.array(z.object({ input: index, output: index })),
      }),
    )
    .optional(),
});

/** More vertices than this are damage or an attack. */
const MOST_VALUES = 60_000_000;

type Gltf = z.infer<typeof gltfSchema>;

const COMPONENT_BYTES: Record<number, number> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const COMPONENTS: Record<string, number> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4, MAT2: 4, MAT3: 9, MAT4: 16 };

/** Bytes that a buffer really has, by its number; undefined where they are written into the description itself. */
type BufferLength = (index: number) => number | undefined;

/**
 * Refuses scene descriptions whose indices, sizes or nesting cannot be followed, so that the reader behind it meets
 * only what it can rely on.
 */
export function checkReferences(json: unknown, bufferLength: BufferLength, fileName: string): void {
  const parsed = gltfSchema.safeParse(json, { error: issueWords });
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw damaged(fileName, `${issue.path.join('.') || 'the scene description'}: ${issue.message}.`);
  }
  const gltf = parsed.data;
  for (const extension of gltf.extensionsRequired ?? [])
    if (!READABLE.has(extension))
      throw new FormatError(
        'unsupported',
        fileName,
        `it needs the extension ${extension}, which is not read yet.`,
        'Export it without that compression or extension.',
      );
  checkBuffers(gltf, bufferLength, fileName);
  checkIndices(gltf, fileName);
  checkNesting(gltf, fileName);
}

const damaged = (fileName: string, reason: string) =>
  new FormatError('damaged', fileName, reason, 'Export the model again.');

function checkBuffers(gltf: Gltf, bufferLength: BufferLength, fileName: string): void {
  const buffers = gltf.buffers ?? [];
  buffers.forEach((buffer, i) => {
    const length = bufferLength(i);
    if (length !== undefined && buffer.byteLength > length + 3)
      throw damaged(fileName, `buffer ${i} claims ${buffer.byteLength} bytes; there are ${length}.`);
  });
  (gltf.bufferViews ?? []).forEach((view, i) => {
    const buffer = buffers[view.buffer];
    if (!buffer || (view.byteOffset ?? 0) + view.byteLength > buffer.byteLength)
      throw damaged(fileName, `buffer view ${i} reaches outside its buffer.`);
  });
  (gltf.accessors ?? []).forEach((accessor, i) => {
    if (accessor.count > MOST_VALUES)
      throw new FormatError(
        'too-large',
        fileName,
        `accessor ${i} claims ${accessor.count.toLocaleString('en')} values, more than any model that can be shown.`,
        'Export the model again, in parts if it is really that large.',
      );
    if (accessor.bufferView === undefined) return;
    const view = gltf.bufferViews?.[accessor.bufferView];
    const element = COMPONENT_BYTES[accessor.componentType]! * COMPONENTS[accessor.type]!;
    const stride = view?.byteStride ?? element;
    if (!view || (accessor.byteOffset ?? 0) + stride * (accessor.count - 1) + element > view.byteLength)
      throw damaged(fileName, `accessor ${i} (${accessor.count} values) reaches outside its buffer view.`);
  });
}

function checkIndices(gltf: Gltf, fileName: string): void {
  const within = (value: number | undefined, list: unknown[] | undefined, what: string) => {
    if (value !== undefined && value >= (list?.length ?? 0))
      throw damaged(fileName, `${what} names number ${value}, and there are ${list?.length ?? 0}.`);
  };
  gltf.scenes?.forEach((scene, i) => scene.nodes?.forEach((n) => within(n, gltf.nodes, `scene ${i}.nodes`)));
  gltf.nodes?.forEach((node, i) => {
    within(node.mesh, gltf.meshes, `node ${i}.mesh`);
    node.children?.forEach((child) => within(child, gltf.nodes, `node ${i}.children`));
  });
  gltf.meshes?.forEach((mesh, i) =>
    mesh.primitives.forEach((primitive) => {
      for (const [name, accessor] of Object.entries(primitive.attributes))
        within(accessor, gltf.accessors, `mesh ${i} ${name}`);
      within(primitive.indices, gltf.accessors, `mesh ${i} indices`);
      within(primitive.material, gltf.materials, `mesh ${i} material`);
    }),
  );
  gltf.animations?.forEach(({ channels, samplers }, i) => {
    for (const { sampler, target } of channels) {
      within(sampler, samplers, `animation ${i}.channels.sampler`);
      within(target.node, gltf.nodes, `animation ${i}.channels.target`);
    }
    for (const { input, output } of samplers) {
      within(input, gltf.accessors, `animation ${i}.samplers.input`);
      within(output, gltf.accessors, `animation ${i}.samplers.output`);
    }
  });
  gltf.images?.forEach((image, i) => {
    within(image.bufferView, gltf.bufferViews, `image ${i}`);
  });
}

/** The node graph must be a forest (glTF 2.0 §5.25): no node inside itself, none with two parents. */
function checkNesting(gltf: Gltf, fileName: string): void {
  const nodes = gltf.nodes ?? [];
  const parent = new Int32Array(nodes.length).fill(-1);
  nodes.forEach((node, i) =>
    node.children?.forEach((child) => {
      if (parent[child] !== -1) throw damaged(fileName, `node ${child} has two parents.`);
      parent[child] = i;
    }),
  );
  for (let start = 0; start < nodes.length; start += 1) {
    let steps = 0;
    for (let node = parent[start]!; node !== -1; node = parent[node]!) {
      steps += 1;
      if (node === start || steps > nodes.length) throw damaged(fileName, `node ${start} contains itself.`);
    }
  }
}
