import { luminanceOf } from '@eskovan/core/colour';
import {
  DataUtils,
  HalfFloatType,
  LinearFilter,
  LinearSRGBColorSpace,
  NearestFilter,
  UnsignedByteType,
  WebGLRenderTarget,
  type WebGLRenderer,
} from 'three';
import { TONE_GLSL } from '../scene/tone.ts';
import { Glare } from './glare.ts';
import type { PictureSize } from './picture-size.ts';
import { screenMaterial, ScreenQuad } from './screen-quad.ts';

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
  uniform sampler2D glare;
  uniform float scattered;
  ${TONE_GLSL}
  void main() {
    vec3 light = texture2D(source, place).rgb * weight;
    if (scattered > 0.0) light += scattered * texture2D(glare, place).rgb;
    gl_FragColor = vec4(toned > 0.5 ? toDisplay(light) : light, 1.0);
  }`;

/**
 * Adds up sub-frames in half floats and hands out the mean. Pixel, lens opening and time within the shutter are one sum
 * over other cameras. Finished pictures are summed as light and toned as a whole, so that a blurred lamp stays a lamp;
 * the working view sums what it shows.
 */
export class Accumulator {
  private readonly quad: ScreenQuad;
  private readonly material = screenMaterial({
    vertexShader,
    fragmentShader,
    uniforms: {
      source: { value: null },
      weight: { value: 1 },
      upsideDown: { value: 0 },
      toned: { value: 0 },
      glare: { value: null },
      scattered: { value: 0 },
    },
    adds: true,
  });
  private single: WebGLRenderTarget | null = null;
  private sum: WebGLRenderTarget | null = null;
  private result: WebGLRenderTarget | null = null;
  private size: PictureSize = { width: 0, height: 0 };
  private linear = false;
  /** One pixel of the sum, four half floats. */
  private readonly pixel = new Uint16Array(4);
  private readonly glare: Glare;

  constructor(private readonly renderer: WebGLRenderer) {
    this.glare = new Glare(renderer);
    this.quad = new ScreenQuad(renderer);
  }

  /** Waits until the graphics card has done what it was given so far. */
  settle(): void {
    if (this.sum) this.renderer.readRenderTargetPixels(this.sum, 0, 0, 1, 1, this.pixel);
  }

  /** @param linear what is added is light; else it is what a display shows */
  start(size: PictureSize, linear: boolean): void {
    if (size.width !== this.size.width || size.height !== this.size.height || linear !== this.linear) {
      this.dispose();
      const shared = { minFilter: NearestFilter, magFilter: NearestFilter, colorSpace: LinearSRGBColorSpace } as const;
      this.linear = linear;
      const type = linear ? HalfFloatType : UnsignedByteType;
      this.single = new WebGLRenderTarget(size.width, size.height, { ...shared, type, depthBuffer: true });
      this.sum = new WebGLRenderTarget(size.width, size.height, {
        ...shared,
        // The glare looks between its pixels.
        minFilter: LinearFilter,
        magFilter: LinearFilter,
        type: HalfFloatType,
        depthBuffer: false,
      });
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
    this.resolve(null, 0);
  }

  /** The mean as RGBA bytes, top row first. */
  readPixels(): Uint8Array<ArrayBuffer> {
    const { width, height } = this.size;
    // The graphics card counts rows from below: turning the picture there is free, here it is not.
    this.resolve(this.result, 1);
    const pixels = new Uint8Array(width * height * 4);
    this.renderer.readRenderTargetPixels(this.result!, 0, 0, width, height, pixels);
    return pixels;
  }

  /** Of the sum, where that is light, the luminance of each pixel. */
  luminances(): Float32Array {
    const { width, height } = this.size;
    const halves = new Uint16Array(4 * width * height);
    this.renderer.readRenderTargetPixels(this.sum!, 0, 0, width, height, halves);
    const at = (k: number) => DataUtils.fromHalfFloat(halves[k]!);
    return Float32Array.from({ length: width * height }, (_, i) =>
      luminanceOf([at(4 * i), at(4 * i + 1), at(4 * i + 2)]),
    );
  }

  dispose(): void {
    for (const target of [this.single, this.sum, this.result]) target?.dispose();
    this.glare.dispose();
    this.size = { width: 0, height: 0 };
  }

  /** Finished pictures are given their glare; then it is their tone's turn. */
  private resolve(to: WebGLRenderTarget | null, upsideDown: number): void {
    const { uniforms } = this.material;
    if (this.linear) {
      uniforms['glare']!.value = this.glare.of(this.sum!.texture, this.size);
      uniforms['scattered']!.value = this.glare.share;
    }
    this.renderer.setRenderTarget(to);
    this.renderer.clear();
    this.copy(this.sum!, to, 1, upsideDown, this.linear);
    uniforms['glare']!.value = null;
    uniforms['scattered']!.value = 0;
  }

  private copy(
    from: WebGLRenderTarget,
    to: WebGLRenderTarget | null,
    weight: number,
    upsideDown: number,
    toned: boolean,
  ): void {
    const { uniforms } = this.material;
    uniforms['source']!.value = from.texture;
    uniforms['weight']!.value = weight;
    uniforms['upsideDown']!.value = upsideDown;
    uniforms['toned']!.value = toned ? 1 : 0;
    this.quad.draw(this.material, to);
  }
}
