import type { Node as GltfNode } from '@gltf-transform/core';
import type { InstancedMesh } from '@gltf-transform/extensions';
import { Matrix4, Quaternion, Vector3 } from 'three';

const instancesOf = (node: GltfNode) => node.getExtension<InstancedMesh>('EXT_mesh_gpu_instancing');

/** How many copies of its mesh a node asks for (EXT_mesh_gpu_instancing); 0 where it has just the one. */
export function instanceCount(node: GltfNode): number {
  const attributes = instancesOf(node)?.listAttributes() ?? [];
  return attributes.length === 0 ? 0 : Math.min(...attributes.map((attribute) => attribute.getCount()));
}

/** Where a node's mesh stands: once, or as often as its instances say. */
export function placesOf(node: GltfNode, matrix: Matrix4): Matrix4[] {
  const instanced = instancesOf(node);
  const attribute = (name: string) => instanced?.getAttribute(name) ?? null;
  const count = instanceCount(node);
  if (!instanced || count === 0) return [matrix];
  const read = (name: string, i: number, otherwise: number[]) => attribute(name)?.getElement(i, []) ?? otherwise;
  return Array.from({ length: count }, (_, i) =>
    matrix
      .clone()
      .multiply(
        new Matrix4().compose(
          new Vector3().fromArray(read('TRANSLATION', i, [0, 0, 0])),
          new Quaternion().fromArray(read('ROTATION', i, [0, 0, 0, 1])),
          new Vector3().fromArray(read('SCALE', i, [1, 1, 1])),
        ),
      ),
  );
}
