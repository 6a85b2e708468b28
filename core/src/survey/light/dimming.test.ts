import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry, SphereGeometry } from 'three';
import { ALL_LIT, isLit, isWithin, type SiteLight } from '../../document/index.ts';
import { packLampLight, packModel, PLAIN_MATERIAL, unpackLampLight, type SceneModel } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { dimmedModel, lightOfLamps, withShares } from '../../site/index.ts';
import { bakeLight } from './index.ts';

/** A room with two bulbs of other colours, a panel that shines, and a low evening through one open side. */
const RED: [number, number, number] = [1, 0.4, 0.2];
const BLUE: [number, number, number] = [0.3, 0.5, 1];
const room = (red = 1, panel = 1): SceneModel => {
  const glowing = (color: readonly number[], part: number) => ({
    ...PLAIN_MATERIAL,
    emissive: color.map((value) => value * part) as [number, number, number],
  });
  const named = (name: string, geometry: Parameters<typeof partOf>[0], material = 0) => ({
    ...partOf(geometry, material),
    model: 'm',
    name,
  });
  return {
    materials: [
      { ...PLAIN_MATERIAL, color: [0.75, 0.7, 0.6] },
      glowing(RED, red),
      glowing(BLUE, 1),
      glowing([0.8, 0.8, 0.7], panel),
    ],
    textures: [],
    parts: [
      named('Floor', new PlaneGeometry(5, 4).rotateX(-Math.PI / 2)),
      named('Ceiling', new PlaneGeometry(5, 4).rotateX(Math.PI / 2).translate(0, 2.6, 0)),
      named('Back', new PlaneGeometry(5, 2.6).translate(0, 1.3, -2)),
      named('Side', new PlaneGeometry(4, 2.6).rotateY(Math.PI / 2).translate(-2.5, 1.3, 0)),
      named('Shelf', new BoxGeometry(1, 0.05, 0.4).translate(0.5, 1.2, -1.7)),
      named('Lamps / Red', new SphereGeometry(0.06, 8, 6).translate(-1.7, 1.5, 0.6), 1),
      named('Lamps / Blue', new SphereGeometry(0.06, 8, 6).translate(1.4, 1.8, -0.4), 2),
      named('Panel', new PlaneGeometry(1.6, 1.2).rotateX(Math.PI / 2).translate(0, 2.55, -1), 3),
    ],
  };
};
const evening: SiteLight = { sun: [0.3, -0.2, 0.93], sky: 'clear', lamps: ALL_LIT };
const dimmers = [
  { model: 'm', name: 'Lamps / Red' },
  { model: 'm', name: 'Panel' },
];

/** The largest difference of two lights, of the brightest there is. */
function off(one: SceneModel, other: SceneModel): number {
  let [most, brightest] = [0, 0];
  one.parts.forEach((part, i) => {
    const [a, b] = [part.light!.ambient, other.parts[i]!.light!.ambient];
    expect(a.length).toBe(b.length);
    for (let k = 0; k < a.length; k += 1) {
      most = Math.max(most, Math.abs(a[k]! - b[k]!));
      brightest = Math.max(brightest, b[k]!);
    }
  });
  return most / brightest;
}

describe('light of lamps that dim', () => {
  const lit = bakeLight(room(), evening);
  const alone = dimmers.map((lamps) => packLampLight(bakeLight(room(), lightOfLamps(evening, lamps)!)));
  const shared = withShares(lit, alone.map(unpackLampLight))!;

  // The truth is the same room with lamps that were made fainter, baked from nothing: light adds up.
  test.each([
    [0.3, 1],
    [0.5, 0.25],
    [1, 0.6],
  ])('at %d and %d of their light is what a bake of fainter lamps gives', (red, panel) => {
    const dimmed = dimmedModel(shared, dimmers, [red, panel]);
    const baked = bakeLight(room(red, panel), evening);
    // A hundredth: each bake leaves off bouncing when a round changes a thousandth. Let bounce on, it is within 0.4 %.
    expect(off(dimmed, baked)).toBeLessThan(0.01);
    // And that is no small change: the check can fail.
    expect(off(lit, baked)).toBeGreaterThan(0.1);
    expect(dimmed.materials[dimmed.parts[5]!.material]!.emissive[0]).toBeCloseTo(red * RED[0], 9);
  });

  test('off altogether it is the light without them; undimmed it is what it was', () => {
    const without = { ...evening, lamps: { lit: true, except: [dimmers[0]!] } };
    expect(off(dimmedModel(shared, dimmers, [0, 1]), bakeLight(room(), without))).toBeLessThan(0.01);
    expect(dimmedModel(shared, dimmers, [1, 1])).toBe(shared);
  });

  test('what other lamps give is left alone', () => {
    const dark = dimmedModel(shared, dimmers, [0, 0]);
    const blue = dark.parts[6]!;
    expect(dark.materials[blue.material]!.emissive).toEqual(BLUE);
    const near = Math.max(...dark.parts[3]!.light!.ambient);
    expect(near).toBeGreaterThan(0);
  });

  test('another site shares nothing; a lamp that is off shares nothing either', () => {
    const another = bakeLight({ ...room(), parts: room().parts.slice(1) }, evening);
    expect(withShares(lit, [unpackLampLight(packLampLight(another))])).toBeNull();
    expect(withShares(lit, [null])!.parts[0]!.light!.shares).toEqual([null]);
  });
});

describe('what some lamps give of a light', () => {
  const of = (lamps: SiteLight['lamps'], part: { model: string; name: string }) =>
    lightOfLamps({ ...evening, lamps }, part)?.lamps;
  const red = { model: 'm', name: 'Lamps / Red' };
  const group = { model: 'm', name: 'Lamps' };
  const names = ['Lamps / Red', 'Lamps / Blue', 'Panel'];

  test('is nothing where they are off, and else what of them is lit', () => {
    for (const lamps of [
      { lit: true, except: [] },
      { lit: true, except: [red] },
      { lit: true, except: [group] },
      { lit: true, except: [{ ...group, model: 'n' }] },
      { lit: false, except: [] },
      { lit: false, except: [red] },
      { lit: false, except: [group] },
    ])
      for (const part of [red, group]) {
        const own = of(lamps, part);
        const wanted = names.filter((name) => isWithin(name, part.name) && isLit(lamps, { model: 'm', name }));
        expect(own ? names.filter((name) => isLit(own, { model: 'm', name })) : []).toEqual(wanted);
        // Nothing is gathered for nothing.
        if (wanted.length === 0) expect(own).toBeUndefined();
      }
  });

  test('is the same by day and under cloud: it is gathered once', () => {
    const noon: SiteLight = { ...evening, sun: [0, 1, 0], sky: 'overcast' };
    expect(lightOfLamps(noon, red)).toEqual(lightOfLamps(evening, red));
  });

  test('comes in a file that is told from others, and from one that was cut off', () => {
    const file = packLampLight(bakeLight(room(), lightOfLamps(evening, red)!));
    expect(file.byteLength).toBeLessThan(packModel(bakeLight(room(), evening)).byteLength / 3);
    expect(() => unpackLampLight(new Uint8Array(4))).toThrow(/not the light of lamps/);
    expect(() => unpackLampLight(file.subarray(0, 16))).toThrow(/inside its header/);
    expect(() => unpackLampLight(file.subarray(0, file.length - 8))).toThrow(/ends early/);
    const newer = file.slice();
    newer[4] = 9;
    expect(() => unpackLampLight(newer)).toThrow(/version 9/);
  });
});
