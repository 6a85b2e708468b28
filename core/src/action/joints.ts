import { Matrix4, Quaternion, Vector3 } from 'three';
import { hermite } from '../geometry/index.ts';
import type { SceneJoint, SceneMovement, SceneTrack } from '../format/index.ts';

/** A movement and the time within it, seconds. */
export interface MovementAt {
  movement: Pick<SceneMovement, 'tracks'>;
  time: number;
}

interface Place {
  translation: Vector3;
  rotation: Quaternion;
  scale: Vector3;
}

/**
 * Where joints are while movements play. Allocates when made, not when asked.
 * Source: glTF 2.0 §3.11 and appendix C (interpolation).
 */
export class JointMotion {
  private readonly hang: Matrix4[];
  private readonly fromRest: Matrix4[];
  private readonly worlds: Matrix4[];
  private readonly places: Place[];

  constructor(private readonly joints: readonly SceneJoint[]) {
    this.hang = joints.map(({ hang }) => new Matrix4().fromArray(hang));
    this.worlds = joints.map(() => new Matrix4());
    this.places = joints.map(() => ({ translation: new Vector3(), rotation: new Quaternion(), scale: new Vector3() }));
    this.layOut([]);
    this.fromRest = this.worlds.map((world) => world.clone().invert());
  }

  /**
   * Fills `out` with what takes a point of each joint from where it rests to where it is.
   * Where two movements move a joint in the same respect, the later one counts.
   */
  moves(playing: readonly MovementAt[], out: readonly Matrix4[]): void {
    this.layOut(playing);
    out.forEach((matrix, i) => matrix.multiplyMatrices(this.worlds[i]!, this.fromRest[i]!));
  }

  private layOut(playing: readonly MovementAt[]): void {
    this.joints.forEach(({ rest }, i) => {
      const { translation, rotation, scale } = this.places[i]!;
      translation.fromArray(rest.translation);
      rotation.fromArray(rest.rotation);
      scale.fromArray(rest.scale);
    });
    for (const { movement, time } of playing)
      for (const track of movement.tracks) {
        sampleTrack(track, time, scratch);
        this.places[track.joint]![track.of].fromArray(scratch);
      }
    this.joints.forEach(({ parent }, i) => {
      const { translation, rotation, scale } = this.places[i]!;
      const world = this.worlds[i]!.compose(translation, rotation, scale).premultiply(this.hang[i]!);
      if (parent !== null) world.premultiply(this.worlds[parent]!);
    });
  }
}

const scratch: number[] = [0, 0, 0, 0];
const from = new Quaternion();
const to = new Quaternion();

/** A track's value at a time: the first before it begins, the last after it ends. `out` gets three or four numbers. */
function sampleTrack({ of, between, times, values }: SceneTrack, time: number, out: number[]): void {
  const width = of === 'rotation' ? 4 : 3;
  const stride = between === 'cubic' ? 3 * width : width;
  // In a cubic key the value lies between its tangents.
  const inset = between === 'cubic' ? width : 0;
  const last = times.length - 1;
  const before = keyBefore(times, time);
  const a = Math.max(0, before) * stride + inset;
  const held = before < 0 || before >= last || between === 'step';
  for (let k = 0; k < width; k += 1) out[k] = values[a + k]!;
  if (held) return;
  const b = (before + 1) * stride + inset;
  const span = times[before + 1]! - times[before]!;
  const t = (time - times[before]!) / span;
  if (between === 'linear' && of === 'rotation') {
    from.fromArray(values, a).slerp(to.fromArray(values, b), t).toArray(out);
    return;
  }
  for (let k = 0; k < width; k += 1) {
    const [p, q] = [values[a + k]!, values[b + k]!];
    out[k] =
      between === 'linear'
        ? p + (q - p) * t
        : hermite(p, span * values[a + width + k]!, q, span * values[b - width + k]!, t);
  }
  if (of === 'rotation') from.fromArray(out).normalize().toArray(out);
}

/** Index of the last key at or before a time; −1 before the first. */
function keyBefore(times: Float32Array, time: number): number {
  let low = 0;
  let high = times.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle]! <= time) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
