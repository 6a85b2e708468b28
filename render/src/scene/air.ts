import type { SiteLight } from '@eskovan/core/document';
import { daylight } from '@eskovan/core/survey';
import { Vector4, type IUniform } from 'three';

/** How much more of its colour the sky shows to the eye along the horizon than it gives to surfaces, and how bright a cover of cloud is shown. */
export const HORIZON = [0.5, 0.63, 0.76] as const;
export const COVER_SHOWN = 0.86;
/**
 * How far one sees, metres, in exceptionally clear air and under cloud: where a dark thing keeps a fiftieth of its contrast
 * with the sky (Koschmieder's meteorological range; classes of the international visibility code, from memory).
 */
const RANGE = { clear: 80_000, overcast: 35_000, dark: Infinity } as const;
/** Koschmieder 1924: the range times what is lost on the way is −ln 0.02. */
const LOST = -Math.log(0.02);

/** Uniforms that tell what air puts before things: its colour, and what it takes per metre. */
export const airUniform = (): IUniform<Vector4> => ({ value: new Vector4(0, 0, 0, 0) });

/** Sets the air of a light; without one there is none, as on paper. */
export function setAir({ value }: IUniform<Vector4>, light: SiteLight | null): void {
  if (!light) {
    value.set(0, 0, 0, 0);
    return;
  }
  const { horizon } = daylight(light);
  const at = (k: 0 | 1 | 2) => horizon[k] * (light.sky === 'overcast' ? COVER_SHOWN : HORIZON[k]);
  value.set(at(0), at(1), at(2), LOST / RANGE[light.sky]);
}

/** `float airBefore(float away)`: the share of a thing’s light that air has taken the place of. Without perspective there is none. */
export const AIR_GLSL = `
  uniform vec4 air;
  float airBefore(float away) { return isOrthographic ? 0.0 : 1.0 - exp(-air.w * away); }
`;
