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
import { depthTarget, disposeDepth, type DepthPass } from './depth-pass.ts';
import type { PictureSize } from './picture-size.ts';
import { screenMaterial, ScreenQuad } from './screen-quad.ts';

/**
 * What the picture's own depth says about corners and contacts: finer than the bake, whose triangles are half a metre.
 * Worked out once a frame and for visible points only. Sub-frames share it: each point is looked up where the first of
 * them saw it. What comes from behind something while the shutter is open takes the shade of what hid it, for its share.
 */
export class ContactShade {
  readonly uniforms: ContactUniforms = {
    contactMap: { value: null },
    contactMatrix: { value: new Matrix4() },
  };
  private depth: WebGLRenderTarget | null = null;
  private shade: WebGLRenderTarget | null = null;
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
  private stale = true;

  constructor(
    renderer: WebGLRenderer,
    private readonly pass: DepthPass,
  ) {
    this.quad = new ScreenQuad(renderer);
  }

  /** A frame begins: what moves may be somewhere else. */
  start(): void {
    this.stale = true;
  }

  /** Works the shade out as a camera sees it, if this frame has none yet. */
  use(model: Group, camera: PerspectiveCamera, size: PictureSize): void {
    this.fit(size);
    if (!this.stale) return;
    // Pieces that this camera sees nothing of are put away.
    this.pass.draw(model, camera, this.depth!, ({ visible }) => visible);
    const { elements } = camera.projectionMatrix;
    const { uniforms } = this.material;
    const { near, far } = camera;
    (uniforms['range']!.value as Vector3).set(near * far, far, far - near);
    (uniforms['lens']!.value as Vector4).set(elements[0]!, elements[5]!, elements[8]!, elements[9]!);
    this.quad.draw(this.material, this.shade);
    (this.uniforms.contactMatrix.value as Matrix4).multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse);
    this.stale = false;
  }

  dispose(): void {
    this.free();
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
    this.stale = true;
  }

  private free(): void {
    disposeDepth(this.depth);
    this.shade?.dispose();
    this.depth = null;
    this.shade = null;
  }
}
