import { DEFAULT_LENS } from '@eskovan/core/document';
import { orientationOf, toRadians } from '@eskovan/core/geometry';
import type { Suggestion } from '@eskovan/core/suggest';
import { expect, test } from '@jest/globals';
import { suggestedNames } from './describe-suggestion.ts';

/** @param bearing that it looks to, degrees clockwise from north */
const looking = (bearing: number, more: Partial<Suggestion> = {}): Suggestion => ({
  camera: {
    pose: { position: [0, 1.6, 0], orientation: orientationOf({ pan: toRadians(-bearing), tilt: -0.2, roll: 0 }) },
    lens: DEFAULT_LENS,
  },
  room: null,
  storey: null,
  terms: { depth: 0, 'two sides': 0, light: 0, subject: 0, 'room before it': 0 },
  score: 0.5,
  depth: null,
  subject: null,
  ...more,
});

test('views from outside are called by the side that they are taken from, those over land by where they look', () => {
  const views = [looking(315), looking(0), looking(45, { land: 'above' }), looking(270, { land: 'ground' })];
  expect(suggestedNames(views, 0)).toEqual([
    'From outside, south-east',
    'From outside, south',
    'From above, south-west',
    'Over the land to the west',
  ]);
  // North of the model is elsewhere: all sides turn with it.
  expect(suggestedNames(views.slice(1, 2), toRadians(-90))).toEqual(['From outside, west']);
});

test('no two have one name', () => {
  const room = { room: 'Hall', subject: 'Bench' };
  const views = [looking(0), looking(10), looking(0, room), looking(180, room), looking(90, { room: 'Hall' })];
  expect(suggestedNames(views, 0)).toEqual([
    'From outside, south',
    'From outside, south 2',
    'Hall, Bench',
    'Hall, Bench 2',
    'Hall',
  ]);
});
