import {
  AddEquation,
  CustomBlending,
  HalfFloatType,
  LinearSRGBColorSpace,
  Mesh,
  NearestFilter,
  OneFactor,
  OrthographicCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  UnsignedByteType,
  WebGLRenderTarget,
  type WebGLRenderer,
} from 'three';
import { TONE_GLSL } from '../scene/tone.ts';
import type { PictureSize } from './picture-size.ts';

const vertexShader = `
  varying vec2 place;
  uniform float upsideDown;
  void main() {
    place = vec2(uv.x, mix(uv.y, 1.0 - uv.y, upsideDown));
    gl_Position = vec4(position.xy, 0.0, 1.0);
  }`;
const fragmentShader = `
  varying vec2 place;
  uniform sampler2D source;
  uniform float weight;
  uniform float toned;
  ${TONE_GLSL}
  void main() {
    vec3 light = texture2D(source, place).rgb * weight;
    gl_FragColor = vec4(toned > 0.5 ? toDisplay(light) : light, 1.0);
  }`;

/**
 * Adds up sub-frames in half floats and hands out the mean. Pixel, lens opening and time within the shutter are one sum
 * over other cameras. Finished pictures are summed as light and toned as a whole, so that a blurred lamp stays a lamp;
 * the working view sums what it shows.
 */
export class Accumulator {
  private readonly quad: Mesh<PlaneGeometry, ShaderMaterial>;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private single: WebGLRenderTarget | null = null;
  private sum: WebGLRenderTarget | null = null;
  private result: WebGLRenderTarget | null = null;
  private size: PictureSize = { width: 0, height: 0 };
  private linear = false;

  constructor(private readonly renderer: WebGLRenderer) {
    const material = new ShaderMaterial({
      vertexShader,
      fragmentShader,
      uniforms: { source: { value: null }, weight: { value: 1 }, upsideDown: { value: 0 }, toned: { value: 0 } },
      depthTest: false,
      depthWrite: false,
      blending: CustomBlending,
      blendEquation: AddEquation,
      blendSrc: OneFactor,
      blendDst: OneFactor,
    });
    this.quad = new Mesh(new PlaneGeometry(2, 2), material);
    this.quad.frustumCulled = false;
    this.scene.add(this.quad);
  }

  /** @param linear what is added is light; else it is what a display shows */
  start(size: PictureSize, linear: boolean): void {
    if (size.width !== this.size.width || size.height !== this.size.height || linear !== this.linear) {
      this.dispose();
      const shared = { minFilter: NearestFilter, magFilter: NearestFilter, colorSpace: LinearSRGBColorSpace } as const;
      this.linear = linear;
      const type = linear ? HalfFloatType : UnsignedByteType;
      this.single = new WebGLRenderTarget(size.width, size.height, { ...shared, type, depthBuffer: true });
      this.sum = new WebGLRenderTarget(size.width, size.height, { ...shared, type: HalfFloatType, depthBuffer: false });
      this.result = new WebGLRenderTarget(size.width, size.height, { ...shared, depthBuffer: false });
      this.size = { ...size };
    }
    this.renderer.setRenderTarget(this.sum);
    this.renderer.clear();
  }

  /** Draws one sub-frame by `pass` and adds it with its weight. */
  add(pass: () => void, weight: number): void {
    this.renderer.setRenderTarget(this.single);
    pass();
    this.copy(this.single!, this.sum, weight, 0, false);
  }

  /** Puts the mean onto the canvas. */
  resolveToCanvas(): void {
    this.renderer.setRenderTarget(null);
    this.renderer.clear();
    this.copy(this.sum!, null, 1, 0, this.linear);
  }

  /** The mean as RGBA bytes, top row first. */
  readPixels(): Uint8Array<ArrayBuffer> {
    const { width, height } = this.size;
    this.renderer.setRenderTarget(this.result);
    this.renderer.clear();
    // The graphics card counts rows from below: turning the picture there is free, here it is not.
    this.copy(this.sum!, this.result, 1, 1, this.linear);
    const pixels = new Uint8Array(width * height * 4);
    this.renderer.readRenderTargetPixels(this.result!, 0, 0, width, height, pixels);
    return pixels;
  }

  dispose(): void {
    for (const target of [this.single, this.sum, this.result]) target?.dispose();
    this.size = { width: 0, height: 0 };
  }

  private copy(
    from: WebGLRenderTarget,
    to: WebGLRenderTarget | null,
    weight: number,
    upsideDown: number,
    toned: boolean,
  ): void {
    const { uniforms } = this.quad.material;
    uniforms['source']!.value = from.texture;
    uniforms['weight']!.value = weight;
    uniforms['upsideDown']!.value = upsideDown;
    uniforms['toned']!.value = toned ? 1 : 0;
    this.renderer.setRenderTarget(to);
    this.renderer.render(this.scene, this.camera);
  }
}
