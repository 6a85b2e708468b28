import { expect, test } from '@jest/globals';
import type { ShotBody } from '../document/index.ts';
import { ownSource, planReel } from '../reel/index.ts';
import { viewShot } from '../reel/reel.fixture.ts';
import { clipVoices, gainAt, heardAt } from './index.ts';

const rate = { num: 25, den: 1 };
const file = { file: { sha256: 'a'.repeat(64), size: 9, mediaType: 'video/mp4' }, fileName: 'a.mp4' };
type Clip = Extract<ShotBody['use'], { kind: 'clip' }>;
const clip = (change: Partial<ShotBody> = {}, use: Partial<Clip> = {}): ShotBody => ({
  reel: 'r',
  ...change,
  use: { kind: 'clip', ...file, duration: 10, from: 0, ...use },
});
const voicesOf = (bodies: ShotBody[]) => {
  const plan = planReel(
    bodies.map((body, i) => ({ id: String(i), body })),
    rate,
    ({ body }) => ownSource(body.use),
  );
  return { plan, voices: clipVoices(plan, (i) => bodies[i]!.use) };
};

test('a clip is heard where it is seen: its own stretch, as fast as it is shown, as loud as it is set', () => {
  const { voices } = voicesOf([viewShot({ seconds: 2 }), clip({ seconds: 4 }, { from: 1, to: 3, gain: 0.5 })]);
  expect(voices).toHaveLength(1);
  const { shot, sha256, voice } = voices[0]!;
  expect([shot, sha256]).toEqual(['1', file.file.sha256]);
  expect(voice).toMatchObject({ start: 2, end: 6, from: 1, speed: 0.5 });
  expect(heardAt(voice, 4)).toBeCloseTo(2, 12);
  expect(gainAt(voice, 4)).toBe(0.5);
  expect([1.99, 6].map((time) => gainAt(voice, time))).toEqual([0, 0]);
});

test('what overlaps dies away as the next swells, and both together are as loud as one', () => {
  const { plan, voices } = voicesOf([clip(), clip({ join: { kind: 'dissolve', seconds: 2 } })]);
  expect(plan.shots[1]!.overlap).toBe(50);
  for (const time of [8.1, 8.7, 9.3, 9.9])
    expect(gainAt(voices[0]!.voice, time) + gainAt(voices[1]!.voice, time)).toBeCloseTo(1, 9);
});

test('a dip is a dip to the ear as well', () => {
  const { voices } = voicesOf([clip(), clip({ join: { kind: 'dip', seconds: 2 } })]);
  const heard = (time: number) => voices.reduce((sum, { voice }) => sum + gainAt(voice, time), 0);
  [1, 0.5, 0, 0.5, 1].forEach((gain, i) => expect(heard(9 + i * 0.5)).toBeCloseTo(gain, 9));
});

test('backwards, muted and what is no clip are silent', () => {
  expect(voicesOf([clip({}, { backwards: true }), clip({}, { gain: 0 }), viewShot()]).voices).toEqual([]);
});
