import { Document, NodeIO, type Node as GltfNode } from '@gltf-transform/core';
import { BoxGeometry } from 'three';

/** One channel of a movement, as it is written. */
export interface Channel {
  node: string;
  path: 'translation' | 'rotation' | 'scale' | 'weights';
  between?: 'LINEAR' | 'STEP' | 'CUBICSPLINE';
  times: readonly number[];
  values: readonly number[];
}

export interface MovingNode {
  name: string;
  at?: [number, number, number];
  turn?: [number, number, number, number];
  size?: [number, number, number];
  /** Has a box of one metre. */
  box?: boolean;
  children?: readonly MovingNode[];
}

/** A GLB with moved nodes, written by an independent library. */
export function movingGlb(
  nodes: readonly MovingNode[],
  movements: Readonly<Record<string, readonly Channel[]>>,
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('Moving');
  const geometry = new BoxGeometry(1, 1, 1);
  const vectors = (name: string) =>
    document
      .createAccessor()
      .setBuffer(buffer)
      .setType('VEC3')
      .setArray(Float32Array.from(geometry.getAttribute(name).array));
  const mesh = document.createMesh('Box').addPrimitive(
    document
      .createPrimitive()
      .setAttribute('POSITION', vectors('position'))
      .setAttribute('NORMAL', vectors('normal'))
      .setIndices(document.createAccessor().setBuffer(buffer).setArray(Uint16Array.from(geometry.index!.array))),
  );
  const byName = new Map<string, GltfNode>();
  const make = ({ name, at, turn, size, box, children = [] }: MovingNode): GltfNode => {
    const node = document.createNode(name);
    if (at) node.setTranslation(at);
    if (turn) node.setRotation(turn);
    if (size) node.setScale(size);
    if (box) node.setMesh(mesh);
    for (const child of children) node.addChild(make(child));
    byName.set(name, node);
    return node;
  };
  for (const node of nodes) scene.addChild(make(node));
  for (const [name, channels] of Object.entries(movements)) {
    const animation = document.createAnimation(name);
    for (const { node, path, between = 'LINEAR', times, values } of channels) {
      const type = path === 'rotation' ? 'VEC4' : path === 'weights' ? 'SCALAR' : 'VEC3';
      const sampler = document
        .createAnimationSampler()
        .setInterpolation(between)
        .setInput(document.createAccessor().setBuffer(buffer).setArray(Float32Array.from(times)))
        .setOutput(document.createAccessor().setBuffer(buffer).setType(type).setArray(Float32Array.from(values)));
      animation.addSampler(sampler).addChannel(
        document
          .createAnimationChannel()
          .setTargetNode(byName.get(node) ?? null)
          .setTargetPath(path)
          .setSampler(sampler),
      );
    }
  }
  return new NodeIO().writeBinary(document);
}
