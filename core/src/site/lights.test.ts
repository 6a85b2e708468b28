import { describe, expect, test } from '@jest/globals';
import { ALL_LIT, FIRST_SUN, isLit, projectBodySchema, type Lamps, type LightBody } from '../document/index.ts';
import { chosenLight, LIGHT_STARTS, ownLight, siteLight, startingLight, type LightStart } from './lights.ts';
import { sunPosition } from './sun.ts';

const project = projectBodySchema.parse({});
const degrees = (radians: number) => (radians * 180) / Math.PI;
const sunOf = (start: LightStart, place = FIRST_SUN) => {
  const { instant } = startingLight(start, place);
  const { altitude, azimuth } = sunPosition(new Date(instant), place.latitude, place.longitude);
  return { altitude: degrees(altitude), azimuth: degrees(azimuth), instant };
};

describe('lights to begin with', () => {
  test('stand where their names say, on the day of the clock on the wall', () => {
    const morning = sunOf('Morning');
    expect(Math.abs(morning.altitude - 22)).toBeLessThan(0.2);
    expect(morning.azimuth).toBeLessThan(180);
    const dusk = sunOf('Dusk, lamps on');
    expect(Math.abs(dusk.altitude + 5)).toBeLessThan(0.2);
    expect(dusk.azimuth).toBeGreaterThan(180);
    // Noon in the south, on that day nowhere higher: 90° less the latitude and the sun's declination of about 9.6°.
    const midday = sunOf('Midday');
    expect(Math.abs(midday.azimuth - 180)).toBeLessThan(1);
    expect(Math.abs(midday.altitude - (90 - FIRST_SUN.latitude + 9.6))).toBeLessThan(0.3);
    for (const start of LIGHT_STARTS)
      expect(new Date(Date.parse(sunOf(start).instant) + FIRST_SUN.clock * 3_600_000).toISOString()).toContain(
        '2026-08-28',
      );
  });

  test('are as near to it as they get where the sun never sets or never rises', () => {
    const summer = { ...FIRST_SUN, latitude: 78, longitude: 16, instant: '2026-06-21T12:00:00.000Z' };
    // At midnight the sun stands as high as its declination is over the pole's distance: 23.4° − (90° − 78°), and half a
    // degree higher at midnight of the clock, an hour before that.
    expect(Math.abs(sunOf('Dusk, lamps on', summer).altitude - 11.9)).toBeLessThan(0.2);
    const winter = { ...summer, instant: '2026-12-21T12:00:00.000Z' };
    expect(sunOf('Morning', winter).altitude).toBeLessThan(0);
    expect(Number.isFinite(sunOf('Morning', winter).altitude)).toBe(true);
  });
});

test('a view is seen in the light that it names; one that is gone gives way to the project’s own', () => {
  const body: LightBody = { ...startingLight('Overcast', project.sun), picture: null };
  expect(chosenLight(project, [{ id: 'a', body }], 'a')).toBe(body);
  for (const id of [null, undefined, 'gone'])
    expect(chosenLight(project, [{ id: 'a', body }], id)).toEqual(ownLight(project));
});

test('under cloud a site is lit by the height of the sun only; lamps count in any order', () => {
  const overcast = startingLight('Overcast', project.sun);
  const turned = { sun: { ...project.sun, north: 1 } };
  expect(siteLight(turned, overcast)).toEqual(siteLight(project, overcast));
  const clear = { ...overcast, sky: 'clear' as const };
  expect(siteLight(turned, clear)).not.toEqual(siteLight(project, clear));
  const [a, b] = [
    { model: 'm', name: 'Hall / Pendants' },
    { model: 'm', name: 'Café' },
  ];
  const lit = (except: Lamps['except']) => siteLight(project, { ...overcast, lamps: { lit: true, except } });
  expect(lit([a!, b!])).toEqual(lit([b!, a!]));
});

test('lamps are on or off together, but for those that are named', () => {
  const except = [{ model: 'm', name: 'Hall / Pendants' }];
  const lamp = { model: 'm', name: 'Hall / Pendants / Glow' };
  expect([isLit(ALL_LIT, lamp), isLit({ lit: true, except }, lamp), isLit({ lit: false, except }, lamp)]).toEqual([
    true,
    false,
    true,
  ]);
  // Another model, and a name that only begins alike, are others.
  expect(isLit({ lit: true, except }, { model: 'n', name: lamp.name })).toBe(true);
  expect(isLit({ lit: true, except }, { model: 'm', name: 'Hall / Pendants 2' })).toBe(true);
});
