import { encodeSrgb } from '@eskovan/core/colour';
import { AIR_GLSL, airUniform } from './air.ts';
import { Vector3, type Vector4, type IUniform, type Material, type MeshBasicMaterial } from 'three';

/**
 * Radiance to display. A toe below TOE keeps shadows deep, a straight middle keeps what is plain true, and above
 * SHOULDER lights bend softly towards white, which MOST of the exposed radiance becomes (an extended Reinhard shoulder:
 * Reinhard et al. 2002, eq. 4, over a straight line).
 */
const TOE = 0.2;
/** Slope of the toe at black; a parabola from there: a power function costs a vertex more than all else. */
const TOE_SLOPE = 0.6;
const SHOULDER = 0.44;
const MOST = 8;
/** Of a colour so much keeps its hue, paling in the lights; the rest bends channel by channel, as film does. */
const HUE_KEPT = 0.6;

const REST = 1 - SHOULDER;
const T2 = ((MOST - SHOULDER) / REST) ** 2;

/** The curve for one channel: exposed radiance to linear display light, 0…1. */
export function compress(x: number): number {
  if (x <= 0) return 0;
  if (x < TOE) return x * (TOE_SLOPE + (1 - TOE_SLOPE) * (x / TOE));
  if (x < SHOULDER) return x;
  const t = (x - SHOULDER) / REST;
  return Math.min(1, SHOULDER + (REST * t * (1 + t / T2)) / (1 + t));
}

/** A grey radiance, exposed, to its display value 0…1. */
export const toDisplay = (radiance: number): number => encodeSrgb(compress(radiance));

/** The same for shaders and for colours: `vec3 toDisplay(vec3 exposed)`. */
export const TONE_GLSL = `
  vec3 compressed(vec3 x) {
    vec3 low = x * (${TOE_SLOPE.toFixed(4)} + x * ${((1 - TOE_SLOPE) / TOE).toFixed(4)});
    vec3 t = max(x - ${SHOULDER.toFixed(4)}, 0.0) * ${(1 / REST).toFixed(6)};
    vec3 high = ${SHOULDER.toFixed(4)} + ${REST.toFixed(4)} * t * (1.0 + t * ${(1 / T2).toFixed(6)}) / (1.0 + t);
    vec3 bent = mix(x, high, step(${SHOULDER.toFixed(4)}, x));
    return min(mix(bent, low, step(x, vec3(${TOE.toFixed(4)}))), 1.0);
  }
  vec3 toDisplay(vec3 exposed) {
    vec3 x = max(exposed, 0.0);
    vec3 single = compressed(x);
    float light = max(dot(x, vec3(0.2126, 0.7152, 0.0722)), 1e-5);
    float shown = compressed(vec3(light)).x;
    vec3 hue = x * (shown / light);
    float over = max(hue.r, max(hue.g, hue.b));
    // What is too light for its hue pales instead of clipping.
    hue = over > 1.0 ? mix(vec3(shown), hue, (1.0 - shown) / max(over - shown, 1e-5)) : hue;
    vec3 c = clamp(mix(single, hue, ${HUE_KEPT.toFixed(2)}), 0.0, 1.0);
    // sRGB's curve by square roots: to a third of a byte.
    vec3 a = sqrt(c);
    vec3 b = sqrt(a);
    return clamp(0.662002687 * a + 0.684122060 * b - 0.323583601 * sqrt(b) - 0.022541147 * c, 0.0, 1.0);
  }`;

/** What all materials of a renderer share. */
export interface ToneUniforms extends Record<string, IUniform> {
  /** Exposure and white balance: every radiance is multiplied by it. */
  gain: IUniform<Vector3>;
  /** One while radiances are summed and toned as a whole, in finished pictures. */
  late: IUniform<number>;
  /** What air puts before things. */
  air: IUniform<Vector4>;
}

export const toneUniforms = (): ToneUniforms => ({
  gain: { value: new Vector3(1, 1, 1) },
  late: { value: 0 },
  air: airUniform(),
});

/** A picture that shines on a surface: added to its light. */
interface Shining {
  map: IUniform;
  color: IUniform;
}

/**
 * Lets an unlit material take its vertex colours for radiances. Without a picture they are exposed and toned in the
 * vertices, which costs a pixel nothing; with one, light and picture are multiplied first and toned then.
 */
export function makeRadiant(material: MeshBasicMaterial, tone: ToneUniforms, shining: Shining | null = null): void {
  const pictured = material.map !== null;
  material.onBeforeCompile = (shader) => {
    Object.assign(shader.uniforms, tone, shining ? { glowMap: shining.map, glowColor: shining.color } : {});
    const head = `uniform vec3 gain;\nuniform float late;\n${TONE_GLSL}\n`;
    const far = 'float through = airBefore(length((modelViewMatrix * vec4(position, 1.0)).xyz));';
    const veil = `#include <color_vertex>\n${far}\n`;
    if (!pictured) {
      shader.vertexShader = (head + AIR_GLSL + shader.vertexShader).replace(
        '#include <color_vertex>',
        `${veil}vColor.rgb = gain * mix(vColor.rgb, air.rgb, through);\nif (late < 0.5) vColor.rgb = toDisplay(vColor.rgb);`,
      );
      return;
    }
    // What is before a picture is no light on it: it is added at the end.
    shader.vertexShader = `uniform vec3 gain;\nvarying vec3 vAir;\n${AIR_GLSL}\n${shader.vertexShader}`.replace(
      '#include <color_vertex>',
      `${veil}vColor.rgb *= gain * (1.0 - through);\nvAir = gain * air.rgb * through;`,
    );
    const glow = shining
      ? 'vec3 shines = texture2D(glowMap, vMapUv).rgb;\noutgoingLight += shines * shines * glowColor * gain;\n'
      : '';
    const before = `${glow}outgoingLight += vAir;\n`;
    shader.fragmentShader = (
      'varying vec3 vAir;\n' +
      (shining ? 'uniform sampler2D glowMap;\nuniform vec3 glowColor;\n' : '') +
      head +
      shader.fragmentShader
    )
      // Close enough to sRGB's own curve, and without a power function a pixel.
      .replace('#include <map_fragment>', '#include <map_fragment>\ndiffuseColor.rgb *= sampledDiffuseColor.rgb;')
      .replace(
        '#include <opaque_fragment>',
        `${before}if (late < 0.5) outgoingLight = toDisplay(outgoingLight);\n#include <opaque_fragment>`,
      );
  };
  const key = `radiant ${pictured ? 'pictured' : 'plain'} ${shining ? 'shining' : ''}`;
  (material as Material).customProgramCacheKey = () => key;
}
