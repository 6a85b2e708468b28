import { expect, test } from '@jest/globals';
import { OfflineError } from '../data/api.ts';
import { SaidError, saidOf } from './said.ts';

const OTHERWISE = 'It could not be done. Try again.';

test('words for people are told, an engine’s are not', () => {
  expect(saidOf(new SaidError('There is no room left.'), OTHERWISE)).toBe('There is no room left.');
  expect(saidOf(new OfflineError(), OTHERWISE)).toMatch(/The server does not answer/);
  for (const error of [
    new TypeError('Cannot read properties of undefined (reading "x")'),
    new RangeError('Array buffer allocation failed'),
    new DOMException('The operation failed for an operation-specific reason', 'EncodingError'),
    new Error('Assertion failed.'),
    'a text',
    undefined,
  ])
    expect(saidOf(error, OTHERWISE)).toBe(OTHERWISE);
});

test('what comes from a worker is known by its name', () => {
  const sent = Object.assign(new Error('The graphics card was taken away.'), { name: 'GraphicsGone' });
  expect(saidOf(sent, OTHERWISE)).toBe('The graphics card was taken away.');
});
