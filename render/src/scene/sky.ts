import { daylight } from '@eskovan/core/survey';
import { BackSide, BufferAttribute, Mesh, MeshBasicMaterial, SphereGeometry } from 'three';
import { makeRadiant, type ToneUniforms } from './tone.ts';

type Rgb = readonly [number, number, number];

/** How much more of its colour the sky shows to the eye than it gives to surfaces. */
const ZENITH: Rgb = [0.32, 0.53, 0.82];
const HORIZON: Rgb = [0.62, 0.74, 0.86];
const BELOW: Rgb = [1.4, 1.5, 1.56];
const PAPER: Rgb = [0.95, 0.945, 0.93];

/** A shell around everything, coloured for a sun: no texture, hardly a cost per pixel. */
export function makeSky(tone: ToneUniforms): Mesh<SphereGeometry, MeshBasicMaterial> {
  const geometry = new SphereGeometry(1, 48, 32);
  geometry.setAttribute('color', new BufferAttribute(new Float32Array(geometry.getAttribute('position').count * 3), 3));
  const material = new MeshBasicMaterial({
    vertexColors: true,
    side: BackSide,
    depthWrite: false,
    depthTest: false,
    fog: false,
  });
  makeRadiant(material, tone);
  const sky = new Mesh(geometry, material);
  sky.frustumCulled = false;
  sky.renderOrder = -1;
  return sky;
}

/** Colours the sky: clear, warmer and lighter about a low sun; plain paper for line drawings. */
export function paintSky(sky: ReturnType<typeof makeSky>, sun: Rgb, paper: boolean): void {
  const position = sky.geometry.getAttribute('position');
  const colors = sky.geometry.getAttribute('color');
  const day = daylight(sun);
  const low = Math.max(0, 1 - Math.abs(sun[1]) / 0.4);
  for (let i = 0; i < position.count; i += 1) {
    const [x, y, z] = [position.getX(i), position.getY(i), position.getZ(i)];
    const t = Math.min(1, Math.max(0, y)) ** 0.5;
    const towards = Math.max(0, x * sun[0] + y * sun[1] + z * sun[2]);
    const glow = 0.35 * towards ** 6 + 0.9 * low * towards ** 3 * (1 - t);
    for (let k = 0; k < 3; k += 1) {
      const radiance =
        y < -0.02
          ? day.ground[k]! * BELOW[k]!
          : day.horizon[k]! * HORIZON[k]! * (1 - t) + day.zenith[k]! * ZENITH[k]! * t + 0.35 * glow * day.sun[k]!;
      colors.setComponent(i, k, paper ? PAPER[k]! * (y < -0.02 ? 0.92 : 1) : radiance);
    }
  }
  colors.needsUpdate = true;
}
