import { DoubleSide, FrontSide, ShaderMaterial, type IUniform, type Texture } from 'three';
import { AIR_GLSL } from './air.ts';
import type { Glow } from './glow.ts';
import { GATHERED_GLSL, type GatherUniforms } from './gathered.ts';
import { MIRROR_GLSL, type MirrorUniforms } from './mirror.ts';
import { TONE_GLSL, type ToneUniforms } from './tone.ts';

/** Where a finished surface is: bit by bit the same in all that draws it, so that depth that was drawn ahead is met. */
export const FINISH_PLACE = `
  vec3 place = (modelMatrix * vec4(position, 1.0)).xyz;
  gl_Position = projectionMatrix * viewMatrix * vec4(place, 1.0);`;

const vertexShader = `
  invariant gl_Position;
  attribute vec4 ambient;
  attribute vec4 base;
  attribute vec4 facing;
  uniform mat4 shadowMatrix;
  uniform mat4 contactMatrix;
  uniform vec3 sun;
  uniform vec3 shadowCentre;
  varying vec3 vAmbient;
  varying vec3 vBase;
  varying vec2 vSurface;
  varying vec3 vPlace;
  varying vec3 vShadow;
  varying vec4 vContact;
  varying vec3 vFacing;
  varying float vBaked;
  varying float vFar;
  varying vec2 vUv;
  #ifdef HELD
    varying vec3 vEye;
  #endif
  void main() {
    ${FINISH_PLACE}
    vContact = contactMatrix * vec4(place, 1.0);
    #ifdef HELD
      // Light that goes along: everything is as if the eye had gone round it instead.
      vEye = (inverse(modelMatrix) * vec4(cameraPosition, 1.0)).xyz;
      place = position;
      vFacing = facing.xyz;
    #else
      vFacing = mat3(modelMatrix) * facing.xyz;
    #endif
    vAmbient = ambient.rgb;
    vBase = base.rgb * base.rgb;
    vSurface = vec2(base.a, facing.a);
    vPlace = place;
    vBaked = ambient.a;
    vFar = distance(place, shadowCentre);
    // A little off the surface along its normal: it must not shade itself.
    vShadow = (shadowMatrix * vec4(place + normalize(vFacing) * 0.035, 1.0)).xyz * 0.5 + 0.5;
    #if defined(USE_COVER) || defined(USE_GLOW)
      vUv = uv;
    #endif
  }`;

/** No surface sends out more light than that. */
const BRIGHTEST = 64;

const fragmentShader = `
  precision highp float;
  uniform sampler2D shadowMap;
  uniform sampler2D movingMap;
  uniform bool movingNear;
  uniform sampler2D contactMap;
  uniform sampler2D cover;
  uniform sampler2D glow;
  uniform vec3 glowColor;
  uniform float shadowTexel;
  uniform bool shadowSpread;
  uniform float shadowReach;
  uniform vec3 sun;
  uniform vec3 sunColor;
  uniform vec3 gain;
  uniform float late;
  varying vec3 vAmbient;
  varying vec3 vBase;
  varying vec2 vSurface;
  varying vec3 vPlace;
  varying vec3 vShadow;
  varying vec4 vContact;
  varying vec3 vFacing;
  varying float vBaked;
  varying float vFar;
  varying vec2 vUv;
  #ifdef HELD
    varying vec3 vEye;
  #else
    #define vEye cameraPosition
  #endif
  ${TONE_GLSL}
  ${AIR_GLSL}
  ${MIRROR_GLSL}
  ${GATHERED_GLSL}
  float seen(vec2 at, float depth) {
    float open = step(depth, texture2D(shadowMap, at).r);
    return movingNear ? open * step(depth, texture2D(movingMap, at).r) : open;
  }
  // Four neighbours, weighed by where between them the point lies.
  float between(vec2 place, float depth) {
    vec2 texel = place / shadowTexel - 0.5;
    vec2 part = fract(texel);
    vec2 at = (floor(texel) + 0.5) * shadowTexel;
    float a = mix(seen(at, depth), seen(at + vec2(shadowTexel, 0.0), depth), part.x);
    float b = mix(seen(at + vec2(0.0, shadowTexel), depth), seen(at + vec2(shadowTexel), depth), part.x);
    return mix(a, b, part.y);
  }
  // Nine neighbours, by a quadratic spline: an edge that runs across the map's rows shows no steps.
  float spread(vec2 place, float depth) {
    vec2 texel = place / shadowTexel;
    vec2 part = fract(texel) - 0.5;
    vec2 at = (floor(texel) + 0.5) * shadowTexel;
    float sum = 0.0;
    for (int row = -1; row <= 1; row += 1)
      for (int column = -1; column <= 1; column += 1) {
        vec2 way = vec2(column, row);
        vec2 beside = 0.5 * (0.5 + part * way) * (0.5 + part * way);
        vec2 weight = mix(0.75 - part * part, beside, abs(way));
        sum += weight.x * weight.y * seen(at + way * shadowTexel, depth);
      }
    return sum;
  }
  void main() {
    vec3 normal = normalize(vFacing);
    float cosine = max(0.0, dot(normal, sun));
    // In a triangle that is narrower than a pixel's parts, what lies between its corners may come out as anything.
    vec3 ambient = clamp(vAmbient, 0.0, ${BRIGHTEST.toFixed(1)});
    vec3 own = clamp(vBase, 0.0, 1.0);
    vec2 surface = clamp(vSurface, 0.0, 1.0);
    float baked = clamp(vBaked, 0.0, 1.0);
    float open = baked;
    float near = 1.0 - smoothstep(0.82 * shadowReach, shadowReach, vFar);
    if (near > 0.0 && cosine > 0.0) {
      float depth = vShadow.z - 0.0004;
      open = mix(baked, cosine * (shadowSpread ? spread(vShadow.xy, depth) : between(vShadow.xy, depth)), near);
    } else if (near > 0.0) open = mix(baked, 0.0, near);
    float metalness = surface.x;
    // What was gathered for this very place knows its corners and contacts; elsewhere the depth of the picture tells them.
    vec3 factor;
    float known = mirroring ? gathered(vPlace, normal, factor) : 0.0;
    float contact = mirroring && known < 1.0 ? texture2D(contactMap, 0.5 + 0.5 * vContact.xy / vContact.w).r : 1.0;
    vec3 shown = ambient * (known > 0.0 ? mix(vec3(contact), factor, known) : vec3(contact));
    shown += own * (1.0 - metalness) * sunColor * open;
    #ifdef USE_COVER
      vec4 picture = texture2D(cover, vUv);
      #ifdef CUT_OUT
        if (picture.a < CUT_OUT) discard;
      #endif
      shown *= picture.rgb * picture.rgb;
      own *= picture.rgb * picture.rgb;
    #endif
    #ifdef USE_GLOW
      vec3 shines = texture2D(glow, vUv).rgb;
      shown += shines * shines * glowColor;
    #endif
    shown *= gain;
    vec3 towards = vEye - vPlace;
    float away = length(towards);
    towards /= away;
    if (mirroring) shown = mirrored(shown, normal, towards, own, surface, sunColor * gain * open);
    shown = mix(shown, gain * air.rgb, airBefore(away));
    gl_FragColor = vec4(late > 0.5 ? shown : toDisplay(shown), 1.0 + away);
  }`;

/** What all finished materials of a scene share: set once a sub-frame. */
export type FinishUniforms = ShadowUniforms & ContactUniforms & MirrorUniforms & GatherUniforms;
export type ContactUniforms = Record<'contactMap' | 'contactMatrix', IUniform>;
export type ShadowUniforms = Record<
  | 'shadowMap'
  | 'movingMap'
  | 'movingNear'
  | 'shadowMatrix'
  | 'shadowCentre'
  | 'shadowTexel'
  | 'shadowSpread'
  | 'shadowReach'
  | 'sun'
  | 'sunColor',
  IUniform
>;

/** The pictures of a finished surface: its colours, where they are cut out, and what shines. */
interface FinishPictures {
  cover: Texture | null;
  cutOut: number;
  glow: Glow | null;
}

/**
 * The material of a finished picture: light without the sun from the bake, darker in corners, the sun with its shadow
 * from a map, and what is mirrored in it.
 * @param held the light of what it is on goes with that
 */
export function makeFinish(
  shared: FinishUniforms & ToneUniforms,
  doubleSided: boolean,
  { cover, cutOut, glow }: FinishPictures,
  held = false,
): ShaderMaterial {
  return new ShaderMaterial({
    vertexShader,
    fragmentShader,
    side: doubleSided ? DoubleSide : FrontSide,
    uniforms: {
      ...shared,
      cover: { value: cover },
      glow: { value: glow?.map ?? null },
      glowColor: { value: glow?.color ?? [0, 0, 0] },
    },
    defines: {
      ...(held ? { HELD: '' } : {}),
      ...(cover ? { USE_COVER: '' } : {}),
      ...(cover && cutOut > 0 ? { CUT_OUT: cutOut.toFixed(3) } : {}),
      ...(glow ? { USE_GLOW: '' } : {}),
    },
  });
}
