import {
  Matrix4,
  NearestFilter,
  RedFormat,
  Vector2,
  Vector3,
  Vector4,
  WebGLRenderTarget,
  type Group,
  type PerspectiveCamera,
  type WebGLRenderer,
} from 'three';
import { CONTACT_FRAGMENT, CONTACT_VERTEX, contactWays } from '../scene/contact.ts';
import type { ContactUniforms } from '../scene/finish.ts';
import { DepthPass, depthTarget, disposeDepth } from './depth-pass.ts';
import type { PictureSize } from './picture-size.ts';
import { screenMaterial, ScreenQuad } from './screen-quad.ts';

/**
 * What the picture's own depth says about corners and contacts: finer than the bake, whose triangles are half a metre.
 * Worked out once a frame and for visible points only; sub-frames, which differ by parts of a pixel, share it.
 */
export class ContactShade {
  readonly uniforms: ContactUniforms = {
    contactMap: { value: null },
    contactTexel: { value: new Vector2() },
  };
  private depth: WebGLRenderTarget | null = null;
  private shade: WebGLRenderTarget | null = null;
  private readonly pass: DepthPass;
  private readonly quad: ScreenQuad;
  private readonly material = screenMaterial({
    vertexShader: CONTACT_VERTEX,
    fragmentShader: CONTACT_FRAGMENT,
    uniforms: {
      depthMap: { value: null },
      texel: { value: new Vector2() },
      range: { value: new Vector3() },
      lens: { value: new Vector4() },
      ways: { value: contactWays() },
    },
  });
  private readonly seenFrom = new Matrix4();
  private stale = true;

  constructor(renderer: WebGLRenderer) {
    this.pass = new DepthPass(renderer);
    this.quad = new ScreenQuad(renderer);
  }

  /** A frame begins: what moves may be somewhere else. */
  start(): void {
    this.stale = true;
  }

  /** Makes the shade current for a camera. */
  use(model: Group, camera: PerspectiveCamera, size: PictureSize): void {
    this.fit(size);
    if (!this.stale && this.seenFrom.equals(camera.matrixWorld)) return;
    this.pass.draw(model, camera, this.depth!);
    const { elements } = camera.projectionMatrix;
    const { uniforms } = this.material;
    const { near, far } = camera;
    (uniforms['range']!.value as Vector3).set(near * far, far, far - near);
    (uniforms['lens']!.value as Vector4).set(elements[0]!, elements[5]!, elements[8]!, elements[9]!);
    this.quad.draw(this.material, this.shade);
    this.seenFrom.copy(camera.matrixWorld);
    this.stale = false;
  }

  dispose(): void {
    this.free();
    this.pass.dispose();
    this.quad.dispose();
    this.material.dispose();
  }

  private fit({ width, height }: PictureSize): void {
    if (this.depth?.width === width && this.depth.height === height) return;
    this.free();
    const shared = { minFilter: NearestFilter, magFilter: NearestFilter } as const;
    this.depth = depthTarget(width, height);
    this.shade = new WebGLRenderTarget(width, height, { ...shared, format: RedFormat, depthBuffer: false });
    const { uniforms } = this.material;
    uniforms['depthMap']!.value = this.depth.depthTexture;
    (uniforms['texel']!.value as Vector2).set(1 / width, 1 / height);
    this.uniforms.contactMap.value = this.shade.texture;
    (this.uniforms.contactTexel.value as Vector2).set(1 / width, 1 / height);
    this.stale = true;
  }

  private free(): void {
    disposeDepth(this.depth);
    this.shade?.dispose();
    this.depth = null;
    this.shade = null;
  }
}
