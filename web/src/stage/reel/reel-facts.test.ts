import { expect, test } from '@jest/globals';
import { keyInShot } from './reel-facts.ts';

test('a shot that moves along keeps the names of its pictures, until newer ones come', () => {
  const named = new Map([
    ['a', ['a0', 'a1', 'a2']],
    // It shares two frames with the one before: those are named there.
    ['b', ['b2', 'b3']],
  ]);
  for (const start of [1, 7]) {
    expect(keyInShot(named, { id: 'b', start, overlap: 2 }, start + 2)).toBe('b2');
    expect(keyInShot(named, { id: 'b', start, overlap: 2 }, start + 3)).toBe('b3');
    expect(keyInShot(named, { id: 'b', start, overlap: 2 }, start + 4)).toBeUndefined();
  }
  expect(keyInShot(named, { id: 'new', start: 0, overlap: 0 }, 0)).toBeUndefined();
});
