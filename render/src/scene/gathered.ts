import type { IUniform } from 'three';

/** Light that was gathered once more for the places of one picture; see `PixelLight`. */
export type GatherUniforms = Record<
  'gathering' | 'gatherLight' | 'gatherFacing' | 'gatherPlace' | 'gatherSize' | 'gatherMatrix',
  IUniform
>;

/**
 * `float gathered(vec3 place, vec3 normal, out vec3 factor)`: what the baked light at a place is multiplied by, from the
 * four gathered pixels about it that lie on the same plane and face the same way, and how far they are to be believed,
 * 0…1. The place may have moved by parts of a pixel, or be seen from another point of the lens.
 */
export const GATHERED_GLSL = `
  uniform bool gathering;
  uniform sampler2D gatherLight;
  uniform sampler2D gatherFacing;
  uniform sampler2D gatherPlace;
  uniform vec2 gatherSize;
  uniform mat4 gatherMatrix;
  float gathered(vec3 place, vec3 normal, out vec3 factor) {
    factor = vec3(1.0);
    if (!gathering) return 0.0;
    vec4 clip = gatherMatrix * vec4(place, 1.0);
    vec2 texel = vec2(0.5 + 0.5 * clip.x / clip.w, 0.5 - 0.5 * clip.y / clip.w) * gatherSize - 0.5;
    vec2 base = floor(texel);
    vec2 part = texel - base;
    vec3 sum = vec3(0.0);
    float whole = 0.0;
    for (int k = 0; k < 4; k++) {
      vec2 off = vec2(mod(float(k), 2.0), floor(float(k) / 2.0));
      vec2 at = (base + off + 0.5) / gatherSize;
      vec4 there = texture2D(gatherPlace, at);
      if (there.a <= 0.0) continue;
      vec2 share = mix(1.0 - part, part, off) + 0.02;
      float plane = abs(dot(normal, place - there.xyz)) / there.a;
      float weight = share.x * share.y * (1.0 - smoothstep(0.002, 0.008, plane))
        * smoothstep(0.5, 0.9, dot(normal, texture2D(gatherFacing, at).xyz));
      sum += weight * texture2D(gatherLight, at).rgb;
      whole += weight;
    }
    if (whole < 1e-4) return 0.0;
    factor = sum / whole;
    return smoothstep(0.0, 0.05, whole);
  }`;
