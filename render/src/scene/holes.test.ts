import { describe, expect, test } from '@jest/globals';
import { PLAIN_MATERIAL } from '@eskovan/core/format';
import { PlaneGeometry } from 'three';
import { Holes } from './holes.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';

/** Two by two pixels: the upper left one is there, the lower right one half. */
const LEAF = { width: 2, height: 2, alpha: Uint8Array.from([255, 0, 0, 128]) };
const solid = partOf(new PlaneGeometry(1, 1));
const leaf = partOf(new PlaneGeometry(1, 1), { material: 1 });

describe('what is cut out of pictures', () => {
  const made = (cutOut: number) => ({
    materials: [PLAIN_MATERIAL, { ...PLAIN_MATERIAL, texture: 0, cutOut }],
    textures: [{ bytes: new Uint8Array(1), mediaType: 'image/png' }],
  });

  test('is a hole where its alpha is below the threshold, over and over as the picture repeats', async () => {
    const holes = await Holes.of(made(0.4), () => Promise.resolve(LEAF));
    const there = (s: number, t: number) => holes.isThere(leaf, s, t);
    expect([there(0.2, 0.2), there(0.7, 0.2), there(0.2, 0.7), there(0.7, 0.7)]).toEqual([true, false, false, true]);
    expect([there(3.2, -0.8), there(-0.3, 5.2), there(1, 1)]).toEqual([true, false, true]);
    const strict = await Holes.of(made(0.6), () => Promise.resolve(LEAF));
    expect(strict.isThere(leaf, 0.7, 0.7)).toBe(false);
  });

  test('a solid material has none, nor a picture that cannot be read', async () => {
    const holes = await Holes.of(made(0.5), () => Promise.resolve(null));
    expect(holes.isThere(solid, 0.7, 0.2)).toBe(true);
    expect(holes.isThere(leaf, 0.7, 0.2)).toBe(true);
  });
});
