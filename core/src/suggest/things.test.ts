import { expect, test } from '@jest/globals';
import { thingsOf } from './index.ts';

const part = (
  name: string,
  [x, y, z]: readonly [number, number, number],
  materials: string,
  role: string | null = null,
) => ({
  name,
  bounds: { min: [0, 0, 0] as [number, number, number], max: [x, y, z] as [number, number, number] },
  role,
  // One letter a material: c is clear.
  materials: [...materials].map((letter) => ({ clear: letter === 'c' })),
});

test('pictures are about what stands in a room, not about its windows and doors', () => {
  const things = thingsOf([
    part('Pane', [1, 1.2, 0.02], 'c'),
    part('Window with its frame', [1.2, 1.4, 0.12], 'fc'),
    part('Window, as its file says', [1.2, 1.4, 0.4], 'f', 'window'),
    part('Door, as its file says', [0.9, 2.1, 0.5], 'f', 'door'),
    part('Painting', [1.2, 0.8, 0.04], 'f'),
    part('Show case', [0.8, 1.6, 0.8], 'fc'),
    part('Table', [1.6, 0.75, 0.8], 'f'),
  ]);
  expect(things.map(({ name }) => name)).toEqual(['Painting', 'Show case', 'Table']);
});
