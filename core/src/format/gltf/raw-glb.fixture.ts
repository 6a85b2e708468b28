/** A GLB from a description, with as much binary as it claims. */
export function rawGlb(json: unknown, binary = new Uint8Array(64)): Uint8Array {
  const text = new TextEncoder().encode(JSON.stringify(json));
  const jsonLength = (text.length + 3) & ~3;
  const out = new Uint8Array(12 + 8 + jsonLength + 8 + binary.length).fill(0x20);
  const view = new DataView(out.buffer);
  view.setUint32(0, 0x46546c67, true);
  view.setUint32(4, 2, true);
  view.setUint32(8, out.length, true);
  view.setUint32(12, jsonLength, true);
  view.setUint32(16, 0x4e4f534a, true);
  out.set(text, 20);
  view.setUint32(20 + jsonLength, binary.length, true);
  view.setUint32(24 + jsonLength, 0x004e4942, true);
  out.set(binary, 28 + jsonLength);
  return out;
}

/** Describes a single triangle; its coordinates are the first nine floats of the binary. */
export const triangle = {
  asset: { version: '2.0' },
  scenes: [{ nodes: [0] }],
  nodes: [{ mesh: 0 }],
  meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
  accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' }],
  bufferViews: [{ buffer: 0, byteLength: 36 }],
  buffers: [{ byteLength: 64 }],
};

/** A binary that begins with these floats. */
export const floats = (...values: number[]) => {
  const bytes = new Uint8Array(64);
  new Float32Array(bytes.buffer).set(values);
  return bytes;
};
