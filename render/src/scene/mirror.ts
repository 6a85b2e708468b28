import {
  CustomBlending,
  DoubleSide,
  FrontSide,
  OneFactor,
  OneMinusSrcAlphaFactor,
  ShaderMaterial,
  type IUniform,
} from 'three';
import { TONE_GLSL, type ToneUniforms } from './tone.ts';

/**
 * What surfaces mirror: a picture of everything around the eye, as light that is not exposed yet; from where it was taken;
 * whether it is there to be looked at; and how much what is mirrored counts in a sub-frame: where only some look into
 * mirrors, they look for the others, too.
 */
export type MirrorUniforms = Record<'surroundings' | 'surroundingsAt' | 'mirroring' | 'mirrorWeight', IUniform>;

/** What a clear surface throws back of light that falls on it squarely: glass, water, varnish (n = 1.5, Fresnel). */
const CLEAR = 0.04;
/** What is rougher than the first mirrors less, than the second nothing that one could make out; metals always do. */
const ROUGH = [0.5, 0.85] as const;
/** From a dim room windows are seen as if the picture were exposed for no more than this: they let less through then. */
const WINDOW_GAIN = 2.2;
const LEAST_THROUGH = 0.35;
/** Light on a pane that is none of a window, and light that surely is. */
const OUTDOORS = [0.2, 0.4] as const;
/** A highlight is never sharper than this: it would flicker. Square of a roughness. */
const SHARPEST = 0.06;

/**
 * `mirrored(shown, normal, towards, base, surface, sunlight)`: a surface that shows `shown` with what it mirrors.
 * Fresnel's law as Schlick gives it (1994, eq. 15); the picture of the surroundings holds one and the distance in its
 * alpha (one alone: sky), so that what is mirrored is looked for where it stands, as seen from the surface and not from
 * the eye. Rough surfaces see the picture's coarser levels: the level whose pixels are as wide as the lobe. Whoever takes
 * it in has `gain`, `sun` and `vPlace`.
 */
export const MIRROR_GLSL = `
  uniform samplerCube surroundings;
  uniform vec3 surroundingsAt;
  uniform bool mirroring;
  uniform float mirrorWeight;
  vec3 fresnel(vec3 squarely, float roughness, float cosine) {
    float edge = 1.0 - cosine;
    float square = edge * edge;
    return squarely + (max(vec3(1.0 - roughness), squarely) - squarely) * square * square * edge;
  }
  vec3 inMirror(vec3 place, vec3 ray, float roughness) {
    vec3 from = place - surroundingsAt;
    vec3 way = ray;
    float level = log2(max(1.0, 2.0 * float(textureSize(surroundings, 0).x) * roughness * roughness));
    for (int i = 0; i < 3; i += 1) {
      // Blurred for a rough surface: it shows no edge where things end.
      float distance = textureLod(surroundings, way, max(0.0, level - 3.0)).a - 1.0;
      if (distance <= 0.0) { way = ray; break; }
      // The ray meets a ball of that distance about the eye, which touches what was seen; one that it does not meet is
      // made larger until it does.
      float along = dot(from, ray);
      float inward = min(along, 0.0);
      float least = dot(from, from) - inward * inward;
      way = from + ray * (sqrt(max(distance * distance, least) - dot(from, from) + along * along) - along);
    }
    return textureLod(surroundings, way, level).rgb * gain;
  }
  vec3 mirrored(vec3 shown, vec3 facing, vec3 towards, vec3 base, vec2 surface, vec3 sunlight) {
    float cosine = dot(facing, towards);
    vec3 normal = cosine < 0.0 ? -facing : facing;
    cosine = abs(cosine);
    float metalness = surface.x;
    float roughness = surface.y;
    float keeps = max(metalness, 1.0 - smoothstep(${ROUGH[0].toFixed(2)}, ${ROUGH[1].toFixed(2)}, roughness));
    vec3 part = keeps * fresnel(mix(vec3(${CLEAR.toFixed(2)}), base, metalness), roughness, cosine);
    if (max(part.r, max(part.g, part.b)) < 0.004) return shown;
    vec3 left = shown * (1.0 - dot(part, vec3(0.2126, 0.7152, 0.0722)));
    if (mirrorWeight == 0.0) return left;
    vec3 ray = reflect(-towards, normal);
    vec3 seen = inMirror(vPlace, ray, roughness);
    float alpha = max(${SHARPEST.toFixed(2)}, roughness * roughness);
    float power = 2.0 / (alpha * alpha) - 2.0;
    seen += sunlight * pow(max(dot(ray, sun), 0.0), 0.25 * power) * 0.03 * (power + 8.0) / 8.0;
    return left + mirrorWeight * part * seen;
  }`;

const paneVertex = `
  attribute vec4 facing;
  attribute vec4 color;
  attribute vec4 ambient;
  attribute vec4 base;
  varying vec3 vPlace;
  varying vec3 vFacing;
  varying vec3 vShown;
  varying float vOutdoors;
  varying float vRoughness;
  void main() {
    vec4 place = modelMatrix * vec4(position, 1.0);
    vPlace = place.xyz;
    vFacing = mat3(modelMatrix) * facing.xyz;
    vShown = color.rgb;
    // Light that falls on it: a window has the sky’s, a glass case the room’s.
    float light = dot(ambient.rgb, vec3(1.0)) / max(dot(base.rgb, base.rgb), 1e-3);
    vOutdoors = smoothstep(${OUTDOORS[0].toFixed(2)}, ${OUTDOORS[1].toFixed(2)}, light);
    vRoughness = facing.a;
    gl_Position = projectionMatrix * viewMatrix * place;
  }`;

const paneFragment = `
  precision highp float;
  uniform vec3 sun;
  uniform vec3 gain;
  uniform float late;
  uniform float opacity;
  varying vec3 vPlace;
  varying vec3 vFacing;
  varying vec3 vShown;
  varying float vOutdoors;
  varying float vRoughness;
  ${TONE_GLSL}
  ${MIRROR_GLSL}
  void main() {
    vec3 towards = normalize(cameraPosition - vPlace);
    vec3 facing = normalize(vFacing);
    vec3 normal = dot(facing, towards) < 0.0 ? -facing : facing;
    float part = fresnel(vec3(${CLEAR.toFixed(2)}), vRoughness, dot(normal, towards)).r;
    vec3 seen = vec3(0.0);
    if (mirroring && mirrorWeight > 0.0)
      seen = mirrorWeight * inMirror(vPlace, reflect(-towards, normal), vRoughness);
    float exposed = max(dot(gain, vec3(0.2126, 0.7152, 0.0722)), 1e-3);
    float through = mix(1.0, clamp(${WINDOW_GAIN.toFixed(1)} / exposed, ${LEAST_THROUGH.toFixed(2)}, 1.0), vOutdoors);
    float covers = 1.0 - (1.0 - opacity) * (1.0 - part) * through;
    vec3 shown = vShown * gain * opacity * (1.0 - part) + seen * part;
    gl_FragColor = vec4(late > 0.5 ? shown : toDisplay(shown / max(covers, 1e-3)) * covers, covers);
  }`;

/** Glass of a finished picture: one sees through it, and sees in it what it mirrors, most of it from aside. */
export function makePane(
  shared: MirrorUniforms & ToneUniforms & Record<'sun', IUniform>,
  opacity: number,
  doubleSided: boolean,
): ShaderMaterial {
  return new ShaderMaterial({
    vertexShader: paneVertex,
    fragmentShader: paneFragment,
    side: doubleSided ? DoubleSide : FrontSide,
    transparent: true,
    depthWrite: false,
    blending: CustomBlending,
    blendSrc: OneFactor,
    blendDst: OneMinusSrcAlphaFactor,
    uniforms: { ...shared, opacity: { value: opacity } },
  });
}
