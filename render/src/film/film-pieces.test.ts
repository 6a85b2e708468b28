import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FilmPieces } from './film-pieces.ts';

const bytesOf = async (film: FilmPieces): Promise<number[]> => [
  ...new Uint8Array(await film.whole('video/mp4').arrayBuffer()),
];

describe('a film in pieces', () => {
  test('is what a file would be, in whatever order and over whatever it is written', async () => {
    const write = fc.record({
      position: fc.nat({ max: 60 }),
      bytes: fc.uint8Array({ minLength: 1, maxLength: 30 }),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(write, { minLength: 1, maxLength: 12 }), async (writes) => {
        const film = new FilmPieces();
        const file: number[] = [];
        for (const { position, bytes } of writes) {
          film.write(Uint8Array.from(bytes), position);
          while (file.length < position) file.push(0);
          bytes.forEach((value, i) => (file[position + i] = value));
        }
        expect(await bytesOf(film)).toEqual(file);
      }),
      { numRuns: 300 },
    );
  });

  test('keeps what it was given, whatever becomes of that memory', async () => {
    const film = new FilmPieces();
    const bytes = Uint8Array.of(1, 2, 3);
    film.write(bytes, 0);
    bytes.fill(9);
    expect(await bytesOf(film)).toEqual([1, 2, 3]);
  });

  test('an empty one is empty', async () => {
    expect(await bytesOf(new FilmPieces())).toEqual([]);
  });
});
