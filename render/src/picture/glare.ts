import {
  HalfFloatType,
  LinearFilter,
  LinearSRGBColorSpace,
  Vector2,
  WebGLRenderTarget,
  type ShaderMaterial,
  type Texture,
  type WebGLRenderer,
} from 'three';
import type { PictureSize } from './picture-size.ts';
import { screenMaterial, ScreenQuad } from './screen-quad.ts';

/** What is brighter than so many times what shows as white scatters in lens and eye… */
const BRIGHT = 1.5;
/** …but nothing counts for more than this: a spark must not fog a picture. */
const MOST = 14;
/** Part of that light that comes to lie about its source (by eye, no source). */
export const SCATTERED = 0.09;
/** Pictures to look at through frosted glass, each half as large as the one before; the last is about this high. */
const COARSEST = 14;
const MOST_LEVELS = 6;

/** Four taps between pixels: a tent over sixteen of them. The first one takes what is bright only. */
const downShader = `
  varying vec2 place;
  uniform sampler2D source;
  uniform vec2 texel;
  uniform float first;
  vec3 bright(vec3 light) {
    float l = max(max(light.r, light.g), light.b);
    return light * (min(max(l - ${BRIGHT.toFixed(2)}, 0.0), ${MOST.toFixed(1)}) / max(l, 1e-4));
  }
  vec4 tap(vec2 off) {
    vec3 light = texture2D(source, place + off * texel).rgb;
    if (first < 0.5) return vec4(light, 1.0);
    light = bright(light);
    // A single pixel that sparkles from frame to frame weighs less than a lamp.
    float weight = 1.0 / (1.0 + 0.15 * max(max(light.r, light.g), light.b));
    return vec4(light, 1.0) * weight;
  }
  void main() {
    vec4 sum = tap(vec2(-1.0, -1.0)) + tap(vec2(1.0, -1.0)) + tap(vec2(-1.0, 1.0)) + tap(vec2(1.0, 1.0));
    gl_FragColor = vec4(sum.rgb / sum.a, 1.0);
  }`;

/** A tent over nine pixels of the coarser picture. */
const upShader = `
  varying vec2 place;
  uniform sampler2D source;
  uniform vec2 texel;
  vec3 tap(float x, float y) { return texture2D(source, place + vec2(x, y) * texel).rgb; }
  void main() {
    vec3 light = 4.0 * tap(0.0, 0.0) + 2.0 * (tap(1.0, 0.0) + tap(-1.0, 0.0) + tap(0.0, 1.0) + tap(0.0, -1.0))
      + tap(1.0, 1.0) + tap(-1.0, 1.0) + tap(1.0, -1.0) + tap(-1.0, -1.0);
    gl_FragColor = vec4(light / 16.0, 1.0);
  }`;

/**
 * The glare about lamps and windows: light of what is very bright, spread narrowly and widely at once (a pyramid of ever
 * coarser pictures, each added to the one before), as lenses and eyes scatter it.
 */
export class Glare {
  private levels: WebGLRenderTarget[] = [];
  private size: PictureSize = { width: 0, height: 0 };
  private readonly quad: ScreenQuad;
  private readonly down = screenMaterial({
    fragmentShader: downShader,
    uniforms: { source: { value: null }, texel: { value: new Vector2() }, first: { value: 0 } },
  });
  private readonly up = screenMaterial({
    fragmentShader: upShader,
    uniforms: { source: { value: null }, texel: { value: new Vector2() } },
    adds: true,
  });

  constructor(renderer: WebGLRenderer) {
    this.quad = new ScreenQuad(renderer);
  }

  /** What scatters of a picture, exposed light: to be added to it. Half as large, to be looked up smoothly. */
  of(picture: Texture, size: PictureSize): Texture {
    this.resize(size);
    const { levels } = this;
    let from = { texture: picture, ...size };
    for (const [i, level] of levels.entries()) {
      this.down.uniforms['first']!.value = i === 0 ? 1 : 0;
      this.pass(this.down, from, level);
      from = level;
    }
    for (let i = levels.length - 1; i > 0; i -= 1) this.pass(this.up, levels[i]!, levels[i - 1]!);
    return levels[0]!.texture;
  }

  /** As many pictures were added as there are levels: each is so much of the whole. */
  get share(): number {
    return SCATTERED / Math.max(1, this.levels.length);
  }

  dispose(): void {
    for (const level of this.levels) level.dispose();
    this.levels = [];
    this.size = { width: 0, height: 0 };
  }

  private resize(size: PictureSize): void {
    if (size.width === this.size.width && size.height === this.size.height) return;
    this.dispose();
    this.size = { ...size };
    let [width, height] = [size.width, size.height];
    while (this.levels.length < MOST_LEVELS && (this.levels.length === 0 || height >= 2 * COARSEST)) {
      [width, height] = [Math.max(1, Math.ceil(width / 2)), Math.max(1, Math.ceil(height / 2))];
      this.levels.push(
        new WebGLRenderTarget(width, height, {
          minFilter: LinearFilter,
          magFilter: LinearFilter,
          colorSpace: LinearSRGBColorSpace,
          type: HalfFloatType,
          depthBuffer: false,
        }),
      );
    }
  }

  private pass(
    material: ShaderMaterial,
    from: { texture: Texture; width: number; height: number },
    to: WebGLRenderTarget,
  ): void {
    material.uniforms['source']!.value = from.texture;
    (material.uniforms['texel']!.value as Vector2).set(1 / from.width, 1 / from.height);
    this.quad.draw(material, to);
  }
}
