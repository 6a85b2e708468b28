import type { Animation, AnimationChannel, Document, Node as GltfNode } from '@gltf-transform/core';
import { Matrix4 } from 'three';
import type { SceneJoint, SceneModel, SceneMovement, ScenePart, SceneTrack } from '../scene-model.ts';

/** What a channel may move, by glTF's word for it, and how many numbers that takes. */
const WIDTH = { translation: 3, rotation: 4, scale: 3 } as const;
type Path = keyof typeof WIDTH;
const isPath = (path: string | null): path is Path => path !== null && path in WIDTH;

const BETWEEN = { LINEAR: 'linear', STEP: 'step', CUBICSPLINE: 'cubic' } as const;

/** More keys than this in one channel are damage: half an hour of a film, a key for each frame. */
const MOST_KEYS = 50_000;

/** Movements of rigid nodes (glTF 2.0 §3.11): which parts they carry, and how. */
export class MovementReader {
  private readonly moved = new Set<GltfNode>();
  private readonly joints: SceneJoint[] = [];
  private readonly nodes: GltfNode[] = [];
  private readonly worlds: Matrix4[] = [];

  constructor(
    private readonly document: Document,
    private readonly notes: string[],
    /** Takes the file's origin off. */
    private readonly shift: Matrix4,
  ) {
    for (const animation of document.getRoot().listAnimations())
      for (const channel of animation.listChannels()) {
        const node = channel.getTargetNode();
        if (node && isPath(channel.getTargetPath())) this.moved.add(node);
      }
  }

  /**
   * The joint that carries what hangs on a node: its own where it is moved, else the one above.
   * @param world the node's matrix at rest, the origin taken off
   */
  enter(node: GltfNode, world: Matrix4, above: number | null): number | null {
    if (!this.moved.has(node)) return above;
    if (Math.abs(world.determinant()) < 1e-12) {
      // What has no size at rest cannot be carried from there.
      this.notes.push(`“${node.getName() || 'A node'}” has no size at rest: its movement is not played.`);
      return above;
    }
    const parent = node.getParentNode();
    const outer = above === null ? new Matrix4() : this.worlds[above]!.clone().invert();
    outer.multiply(this.shift);
    const hang = parent ? outer.multiply(new Matrix4().fromArray(parent.getWorldMatrix())) : outer;
    this.worlds.push(world.clone());
    this.nodes.push(node);
    return (
      this.joints.push({
        name: node.getName(),
        parent: above,
        hang: hang.toArray(),
        rest: { translation: node.getTranslation(), rotation: node.getRotation(), scale: node.getScale() },
      }) - 1
    );
  }

  /** The movements, and those joints that carry anything; `parts` are told their joint's place among these. */
  finish(parts: ScenePart[]): Required<Pick<SceneModel, 'joints' | 'movements'>> {
    const used = new Set<number>();
    for (const { joint } of parts)
      for (let at = joint ?? null; at !== null && !used.has(at); at = this.joints[at]!.parent) used.add(at);
    const place = new Map([...used].sort((a, b) => a - b).map((joint, i) => [joint, i]));
    for (const part of parts) if (part.joint !== undefined) part.joint = place.get(part.joint)!;
    const joints = [...place.keys()].map((at): SceneJoint => {
      const joint = this.joints[at]!;
      return { ...joint, parent: joint.parent === null ? null : place.get(joint.parent)! };
    });
    const byNode = new Map([...place].map(([at, i]) => [this.nodes[at]!, i]));
    return { joints, movements: this.movements(byNode) };
  }

  private movements(joints: ReadonlyMap<GltfNode, number>): SceneMovement[] {
    const names = new Set<string>();
    return this.document
      .getRoot()
      .listAnimations()
      .flatMap((animation, i) => {
        const name = unique(animation.getName().trim().slice(0, 480) || `Movement ${i + 1}`, names);
        const movement = this.movement(animation, name, joints);
        if (typeof movement === 'string') this.notes.push(`The movement “${name}” ${movement}.`);
        return typeof movement === 'string' ? [] : [movement];
      });
  }

  /** A movement, or why there is none. */
  private movement(animation: Animation, name: string, joints: ReadonlyMap<GltfNode, number>): SceneMovement | string {
    const tracks: SceneTrack[] = [];
    const targets = new Set<string>();
    for (const channel of animation.listChannels()) {
      const node = channel.getTargetNode();
      const joint = node && joints.get(node);
      const path = channel.getTargetPath();
      if (joint === undefined || joint === null || !isPath(path)) continue;
      const track = readTrack(channel, joint, path);
      if (typeof track === 'string') return `cannot be played: ${track}`;
      tracks.push(track);
      targets.add(node!.getName() || 'Unnamed part');
    }
    if (tracks.length === 0) return 'moves nothing that can be shown (shapes that change and skeletons are not played)';
    const duration = Math.max(...tracks.map(({ times }) => times.at(-1)!));
    return { name, duration, targets: [...targets], tracks };
  }
}

/** A channel's keys, or what is wrong with them. */
function readTrack(channel: AnimationChannel, joint: number, path: Path): SceneTrack | string {
  const sampler = channel.getSampler();
  const input = sampler?.getInput();
  const output = sampler?.getOutput();
  if (!input || !output || input.getCount() === 0) return 'it has no keys';
  const between = BETWEEN[sampler!.getInterpolation()];
  const keys = input.getCount();
  if (keys > MOST_KEYS) return `it has ${keys} keys, and at most ${MOST_KEYS} are read`;
  const perKey = between === 'cubic' ? 3 : 1;
  const width = WIDTH[path];
  if (output.getCount() < keys * perKey || output.getElementSize() !== width)
    return `there are ${output.getCount()} values for ${keys} keys of its ${path}`;
  const times = Float32Array.from({ length: keys }, (_, i) => input.getScalar(i));
  const values = new Float32Array(keys * perKey * width);
  for (let i = 0; i < keys * perKey; i += 1) values.set(output.getElement(i, []), i * width);
  if (times.some((time, i) => !Number.isFinite(time) || time < 0 || (i > 0 && time <= times[i - 1]!)))
    return 'the times of its keys do not rise';
  if (!values.every(Number.isFinite)) return 'a value of its keys is no number';
  return { joint, of: path, between, times, values };
}

/** A name that no movement before has: actions find their movement by it. */
function unique(name: string, names: Set<string>): string {
  let own = name;
  for (let n = 2; names.has(own); n += 1) own = `${name} ${n}`;
  names.add(own);
  return own;
}
