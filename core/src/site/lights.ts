import {
  ALL_LIT,
  isWithin,
  type LightBody,
  type PartPath,
  type ProjectBody,
  type SiteLight,
  type SunSetting,
} from '../document/index.ts';
import { toRadians } from '../geometry/index.ts';
import { sunDirection, sunPosition } from './sun.ts';

/** What a person sets of a light. */
export type LightSetting = Omit<LightBody, 'picture'>;

/** The project's own light, which holds wherever no named one is chosen. */
export const ownLight = ({ sun, sky, lamps, exposure }: ProjectBody): LightSetting => ({
  instant: sun.instant,
  sky,
  lamps,
  exposure,
});

/** The light that a view or move is seen in. One that is not there any more gives way to the project's own. */
export const chosenLight = (
  project: ProjectBody,
  lights: readonly { id: string; body: LightBody }[],
  id: string | null | undefined,
): LightSetting => lights.find((light) => light.id === id)?.body ?? ownLight(project);

/**
 * What a site is lit by in a light: a tenth of a degree makes no other picture, and under cloud the sun counts by its
 * height only.
 */
export function siteLight({ sun: place }: Pick<ProjectBody, 'sun'>, { instant, sky, lamps }: LightSetting): SiteLight {
  const [x, y, z] = sunDirection({ ...place, instant });
  const sun = sky === 'overcast' ? ([Math.sqrt(1 - y * y), y, 0] as const) : ([x, y, z] as const);
  return {
    sun: sun.map((value) => Math.round(value * 500) / 500) as [number, number, number],
    sky,
    lamps: { ...lamps, except: [...lamps.except].sort((a, b) => (a.model + a.name < b.model + b.name ? -1 : 1)) },
  };
}

/**
 * What some lamps alone give of a light: the same by day and by night. Null where none of them is lit in it.
 * @param lamp a part that glows, or a group of them
 */
export function lightOfLamps({ lamps: { lit, except } }: SiteLight, { model, name }: PartPath): SiteLight | null {
  const own = except.filter((one) => one.model === model);
  const whole = own.some((one) => isWithin(name, one.name)) !== lit;
  const within = own.filter((one) => one.name !== name && isWithin(one.name, name));
  const dark = { sun: NO_SUN, sky: 'dark' } as const;
  const all = { lit: false, except: [{ model, name }] };
  if (whole) return { ...dark, lamps: lit && within.length > 0 ? { ...all, without: within } : all };
  return !lit && within.length > 0 ? { ...dark, lamps: { lit: false, except: within } } : null;
}
const NO_SUN = [0, -1, 0] as const;

/** Lights to begin with: where the sun is to stand, degrees, and when in the day. */
const STARTS = {
  Morning: { altitude: 22, half: 'rising', sky: 'clear', lit: false },
  Midday: { altitude: 90, half: 'setting', sky: 'clear', lit: false },
  'Low sun': { altitude: 9, half: 'setting', sky: 'clear', lit: true },
  'Dusk, lamps on': { altitude: -5, half: 'setting', sky: 'clear', lit: true },
  Overcast: { altitude: 90, half: 'setting', sky: 'overcast', lit: true },
} as const;
export type LightStart = keyof typeof STARTS;
export const LIGHT_STARTS = Object.keys(STARTS) as LightStart[];

const MINUTE = 60_000;
const DAY = 24 * 60;

/** A light to begin with, on the project's day: where the sun never stands so high or low, as near to it as it gets. */
export function startingLight(start: LightStart, place: SunSetting): LightSetting {
  const { altitude, half, sky, lit } = STARTS[start];
  const local = new Date(place.instant).getTime() + place.clock * 60 * MINUTE;
  // The day of the clock on the wall.
  const first = Math.floor(local / (DAY * MINUTE)) * DAY * MINUTE - place.clock * 60 * MINUTE;
  const heights = Array.from(
    { length: DAY },
    (_, minute) => sunPosition(new Date(first + minute * MINUTE), place.latitude, place.longitude).altitude,
  );
  const noon = heights.indexOf(Math.max(...heights));
  const wanted = toRadians(altitude);
  let best = noon;
  for (let minute = half === 'rising' ? 0 : noon; minute < (half === 'rising' ? noon : DAY); minute += 1)
    if (Math.abs(heights[minute]! - wanted) < Math.abs(heights[best]! - wanted)) best = minute;
  return {
    instant: new Date(first + best * MINUTE).toISOString(),
    sky,
    lamps: lit ? ALL_LIT : { ...ALL_LIT, lit: false },
    exposure: 0,
  };
}
