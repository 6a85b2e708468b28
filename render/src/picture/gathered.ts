import type { CameraSample } from '@eskovan/core/move';
import { Projection } from '@eskovan/core/optics';
import type { PixelGather } from '@eskovan/core/survey';
import { DataTexture, FloatType, Matrix4, Quaternion, RGBAFormat, Vector2, Vector3, type Texture } from 'three';
import type { GatherUniforms } from '../scene/gathered.ts';

/** Hands the light that was gathered for a picture to its materials. */
export class Gathered {
  readonly uniforms: GatherUniforms = {
    gathering: { value: false },
    gatherLight: { value: null },
    gatherFacing: { value: null },
    gatherPlace: { value: null },
    gatherSize: { value: new Vector2(1, 1) },
    gatherMatrix: { value: new Matrix4() },
  };

  /** @param sample the camera that the light was gathered for */
  set(gather: PixelGather, sample: CameraSample): void {
    this.clear();
    const { width, height, factors, normals, places, distances } = gather;
    const { uniforms } = this;
    const { view, position, orientation } = sample;
    const projection = new Projection(view, width / height, position, orientation);
    const camera = new Matrix4().compose(
      new Vector3(...position),
      new Quaternion(...orientation),
      new Vector3(1, 1, 1),
    );
    (uniforms.gatherMatrix.value as Matrix4).fromArray(projection.matrix(0.1, 1000)).multiply(camera.invert());
    (uniforms.gatherSize.value as Vector2).set(width, height);
    uniforms.gatherLight.value = textureOf(width, height, factors, null);
    uniforms.gatherFacing.value = textureOf(width, height, normals, null);
    uniforms.gatherPlace.value = textureOf(width, height, places, distances);
    uniforms.gathering.value = true;
  }

  clear(): void {
    const { gatherLight, gatherFacing, gatherPlace, gathering } = this.uniforms;
    for (const uniform of [gatherLight, gatherFacing, gatherPlace]) {
      (uniform.value as Texture | null)?.dispose();
      uniform.value = null;
    }
    gathering.value = false;
  }
}

/** Three numbers a pixel and a fourth, as they are: looked up one by one. */
function textureOf(width: number, height: number, three: Float32Array, fourth: Float32Array | null): DataTexture {
  const data = new Float32Array(4 * width * height);
  for (let i = 0; i < width * height; i += 1) {
    for (let k = 0; k < 3; k += 1) data[4 * i + k] = three[3 * i + k]!;
    data[4 * i + 3] = fourth?.[i] ?? 0;
  }
  const texture = new DataTexture(data, width, height, RGBAFormat, FloatType);
  texture.needsUpdate = true;
  return texture;
}
