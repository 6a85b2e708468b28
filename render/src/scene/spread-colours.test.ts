import { describe, expect, test } from '@jest/globals';
import { spreadColours } from './spread-colours.ts';

/** A picture of one letter a pixel: R and G are opaque red and green, a dot is cut out and black, as canvases leave it. */
const picture = (rows: readonly string[]): Uint8ClampedArray =>
  Uint8ClampedArray.from(
    [...rows.join('')].flatMap((letter) =>
      letter === 'R' ? [200, 0, 0, 255] : letter === 'G' ? [0, 100, 0, 255] : [0, 0, 0, 0],
    ),
  );
const at = (pixels: Uint8ClampedArray, i: number) => [...pixels.slice(4 * i, 4 * i + 4)];

describe('what is cut out of a picture', () => {
  test('gets the colour of what is beside it, and stays cut out', () => {
    const pixels = picture(['R....', 'R....', 'R....']);
    spreadColours(pixels, 5);
    for (let i = 0; i < 15; i += 1) expect(at(pixels, i)).toEqual([200, 0, 0, i % 5 === 0 ? 255 : 0]);
  });

  test('between two is a mean, and none of it is darker than both: no outline', () => {
    const pixels = picture(['R.G']);
    spreadColours(pixels, 3);
    expect(at(pixels, 1)).toEqual([100, 50, 0, 0]);
  });

  test('far from everything is the mean of all that is there', () => {
    const pixels = picture([`RG${'.'.repeat(20)}`]);
    spreadColours(pixels, 22);
    expect(at(pixels, 2)).toEqual([0, 100, 0, 0]);
    expect(at(pixels, 21)).toEqual([100, 50, 0, 0]);
  });

  test('does not go round the edge of the picture, and nothing is changed where nothing or everything is cut out', () => {
    // What follows the red one in the list of pixels is at the other edge, near the green one.
    const pixels = picture(['.....R', '......', '......', 'G.....']);
    spreadColours(pixels, 6);
    expect(at(pixels, 6)).toEqual([0, 100, 0, 0]);
    for (const same of [picture(['....']), picture(['RGRG'])]) {
      const before = [...same];
      spreadColours(same, 2);
      expect([...same]).toEqual(before);
    }
  });

  test('that is nearly cut out has no colour of its own, for browsers keep colours times alpha', () => {
    const pixels = Uint8ClampedArray.of(200, 0, 0, 255, 0, 0, 255, 3);
    spreadColours(pixels, 2);
    expect(at(pixels, 1)).toEqual([200, 0, 0, 3]);
  });
});
