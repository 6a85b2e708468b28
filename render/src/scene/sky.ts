import type { SiteLight } from '@eskovan/core/document';
import { smooth } from '@eskovan/core/geometry';
import { daylight } from '@eskovan/core/survey';
import {
  BackSide,
  BufferAttribute,
  DataTexture,
  LinearFilter,
  LinearMipmapLinearFilter,
  Mesh,
  RepeatWrapping,
  RGFormat,
  ShaderMaterial,
  SphereGeometry,
  Vector3,
} from 'three';
import { COVER_SHOWN, HORIZON } from './air.ts';
import { CLOUD_SIDE, cloudField } from './clouds.ts';
import { TONE_GLSL, type ToneUniforms } from './tone.ts';

type Rgb = readonly [number, number, number];
type SkyLight = Pick<SiteLight, 'sun' | 'sky'>;

/** How much more of its colour the sky shows to the eye than it gives to surfaces. */
const ZENITH: Rgb = [0.2, 0.38, 0.68];
/** Beyond a landscape the land goes on, behind air. */
const BELOW: Rgb = [1.1, 1.3, 1.2];
/** Of a model that brings no ground along the ground has no colour, is darker than white walls, and goes over into the sky (by eye, no source). */
const PLAIN: Rgb = [1.55, 1.68, 1.9];
/** It is all ground from so far below the horizon on (sine of the angle). */
const ALL_GROUND = 0.42;
const ALL_LAND = 0.3;
const PAPER: Rgb = [0.95, 0.945, 0.93];
/** Where the sun has gone down, a glow is left along the horizon, so bright at its brightest. */
const AFTERGLOW: Rgb = [0.34, 0.15, 0.06];
/** A cover of cloud is grey all over, with darker billows on it as far as this. */
const COVER_BILLOWS = 0.5;
/** Of what falls on them, clouds send back so much: of the sun where they are lit, of the sky, of the ground below. */
const CLOUD = { sun: 0.6, sky: 0.62, ground: 0.3 } as const;

/** Colours are toned in the vertices; a pixel only mixes them by the field of clouds, seen as a level layer. */
const vertexShader = `
  attribute vec3 color;
  uniform vec3 gain;
  uniform float late;
  uniform vec3 cloudLit;
  uniform vec3 cloudShade;
  varying vec3 vClear;
  varying vec3 vLit;
  varying vec3 vShade;
  varying vec3 vWay;
  ${TONE_GLSL}
  vec3 shown(vec3 light) { return late > 0.5 ? light * gain : toDisplay(light * gain); }
  void main() {
    vClear = shown(color);
    // Far away all is seen through the same air.
    float air = 0.55 * exp(-7.0 * max(position.y, 0.0));
    vLit = shown(mix(cloudLit, color, air));
    vShade = shown(mix(cloudShade, color, air));
    vWay = position;
    // Behind everything, and drawn after it: only where nothing is.
    gl_Position = (projectionMatrix * modelViewMatrix * vec4(position, 1.0)).xyww;
  }`;
const fragmentShader = `
  precision highp float;
  uniform sampler2D clouds;
  uniform float cloudy;
  varying vec3 vClear;
  varying vec3 vLit;
  varying vec3 vShade;
  varying vec3 vWay;
  void main() {
    vec3 seen = vClear;
    if (cloudy > 0.0 && vWay.y > 0.01) {
      vec2 cloud = texture2D(clouds, vWay.xz / (vWay.y + 0.14) * 0.31).rg;
      seen = mix(seen, mix(vShade, vLit, cloud.g), cloudy * cloud.r * smoothstep(0.01, 0.1, vWay.y));
    }
    gl_FragColor = vec4(seen, 1.0);
  }`;

/** A shell around everything, coloured for a sun. */
export function makeSky(tone: ToneUniforms): Mesh<SphereGeometry, ShaderMaterial> {
  const geometry = new SphereGeometry(1, 48, 32);
  geometry.setAttribute('color', new BufferAttribute(new Float32Array(geometry.getAttribute('position').count * 3), 3));
  const clouds = Object.assign(new DataTexture(new Uint8Array(2), 1, 1, RGFormat), {
    wrapS: RepeatWrapping,
    wrapT: RepeatWrapping,
    minFilter: LinearMipmapLinearFilter,
    magFilter: LinearFilter,
    generateMipmaps: true,
    unpackAlignment: 1,
  });
  const material = new ShaderMaterial({
    vertexShader,
    fragmentShader,
    side: BackSide,
    depthWrite: false,
    uniforms: {
      ...tone,
      clouds: { value: clouds },
      cloudy: { value: 0 },
      cloudLit: { value: new Vector3() },
      cloudShade: { value: new Vector3() },
    },
  });
  const sky = new Mesh(geometry, material);
  sky.frustumCulled = false;
  sky.renderOrder = 1;
  return sky;
}

/**
 * Colours the sky: fair weather, warmer and lighter about a low sun, or a grey cover; plain paper for line drawings.
 * @param on what is seen below: a landscape of its own hides it, a model without one stands on plain ground
 */
export function paintSky(
  shell: ReturnType<typeof makeSky>,
  { sun, sky }: SkyLight,
  on: 'paper' | 'landscape' | 'plain ground',
): void {
  const paper = on === 'paper';
  const below = on === 'plain ground' ? PLAIN : BELOW;
  const position = shell.geometry.getAttribute('position');
  const colors = shell.geometry.getAttribute('color');
  const day = daylight({ sun, sky });
  const low = Math.max(0, 1 - Math.abs(sun[1]) / 0.4);
  const after = sky === 'clear' ? smooth(0.06, -0.02, sun[1]) * smooth(-0.22, -0.06, sun[1]) : 0;
  const flat = Math.hypot(sun[0], sun[2]) || 1;
  for (let i = 0; i < position.count; i += 1) {
    const [x, y, z] = [position.getX(i), position.getY(i), position.getZ(i)];
    const t = Math.min(1, Math.max(0, y)) ** 0.5;
    const towards = Math.max(0, x * sun[0] + y * sun[1] + z * sun[2]);
    const aside = 0.5 + (0.5 * (x * sun[0] + z * sun[2])) / (flat * (Math.hypot(x, z) || 1));
    const left = after * aside ** 3 * Math.exp(-7 * Math.max(0, y));
    const glow = 0.35 * towards ** 6 + 0.9 * low * towards ** 3 * (1 - t);
    // Far away the ground is seen through so much air that there is no line where it ends.
    const ground = smooth(0.02, on === 'plain ground' ? ALL_GROUND : ALL_LAND, -y);
    for (let k = 0; k < 3; k += 1) {
      const air =
        sky === 'overcast'
          ? COVER_SHOWN * (day.horizon[k]! + (day.zenith[k]! - day.horizon[k]!) * Math.max(0, y))
          : day.horizon[k]! * HORIZON[k]! * (1 - t) + day.zenith[k]! * ZENITH[k]! * t;
      const radiance =
        y < -0.02
          ? air * (1 - ground) + ground * day.ground[k]! * below[k]!
          : air + (sky === 'overcast' ? 0 : 0.35 * glow * day.sun[k]!);
      const seen = y < -0.02 ? radiance : radiance + left * AFTERGLOW[k]!;
      colors.setComponent(i, k, paper ? PAPER[k]! * (y < -0.02 ? 0.92 : 1) : seen);
    }
  }
  colors.needsUpdate = true;
  paintClouds(shell, { sun, sky }, paper);
}

function paintClouds({ material, userData }: ReturnType<typeof makeSky>, { sun, sky }: SkyLight, paper: boolean): void {
  const { clouds, cloudy, cloudLit, cloudShade } = material.uniforms;
  cloudy!.value = paper ? 0 : sky === 'overcast' ? COVER_BILLOWS : 1;
  if (paper) return;
  const day = daylight({ sun, sky });
  // Billows of a cover hang under it: lit from above they are dark, at their rims as light as it is.
  const shade =
    sky === 'overcast'
      ? day.zenith.map((value) => 0.5 * value)
      : [0, 1, 2].map((k) => CLOUD.sky * day.horizon[k]! + CLOUD.ground * day.ground[k]!);
  (cloudShade!.value as Vector3).fromArray(shade);
  (cloudLit!.value as Vector3).fromArray(
    sky === 'overcast' ? [...day.zenith] : shade.map((value, k) => value + CLOUD.sun * day.sun[k]!),
  );
  // A twentieth of a turn makes no other cloud.
  const bearing = (Math.round((Math.atan2(sun[2], sun[0]) / Math.PI) * 10) * Math.PI) / 10;
  if (userData['bearing'] === bearing) return;
  userData['bearing'] = bearing;
  const texture = clouds!.value as DataTexture;
  texture.dispose();
  texture.image = { data: cloudField([Math.cos(bearing), Math.sin(bearing)]), width: CLOUD_SIDE, height: CLOUD_SIDE };
  texture.needsUpdate = true;
}
