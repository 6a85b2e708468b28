import { describe, expect, test } from '@jest/globals';
import type { Vec3 } from '../document/index.ts';
import { DEFAULT_LENS } from '../document/index.ts';
import { standing } from '../move/index.ts';
import { Footing } from '../survey/index.ts';
import { joinCovers, OUTSIDE, shotCover, unseenRooms, type CoveredStorey } from './index.ts';

const nothing = new Footing(new Float32Array(0), new Float32Array(0));
/** A room of 6 × 6 m about the origin. */
const STOREY = {
  name: 'Ground',
  elevation: 0,
  rooms: [
    {
      name: 'Hall',
      at: [0, 0, 0],
      area: 36,
      places: Array.from({ length: 49 }, (_, i) => [(i % 7) - 3, Math.floor(i / 7) - 3]).flat(),
    },
  ],
} as unknown as CoveredStorey;

/** A camera that walks through the room along −Z, from 10 m before it. */
const through = {
  duration: 20,
  sampleAt: (time: number) =>
    standing({ position: [0, 1.6, 10 - time] as Vec3, orientation: [0, 0, 0, 1] }, DEFAULT_LENS, time),
};

describe('what a reel shows', () => {
  test('the outside is a row among the rooms, and shots add up at their places', () => {
    const cover = shotCover(through, nothing, [STOREY], 16 / 9);
    const of = (name: string) => cover.find(({ room }) => room === name)!;
    expect(of('Hall').inside).toBeGreaterThan(4);
    expect(of(OUTSIDE).seen + of('Hall').inside).toBeCloseTo(20, 6);
    expect(of(OUTSIDE).spans).toHaveLength(2);
    const twice = joinCovers([
      { start: 0, cover },
      { start: 20, cover },
    ]);
    const both = (name: string) => twice.find(({ room }) => room === name)!;
    expect(both('Hall').seen).toBeCloseTo(2 * of('Hall').seen, 9);
    // What is outside at the end of one shot and at the start of the next is one stretch.
    expect(both(OUTSIDE).spans).toHaveLength(3);
    expect(both('Hall').spans.at(-1)![0]).toBeGreaterThanOrEqual(20);
  });

  test('a room that no shot shows is in the list, with nothing', () => {
    const away = {
      duration: 2,
      sampleAt: (time: number) => standing({ position: [0, 1.6, 30], orientation: [0, 1, 0, 0] }, DEFAULT_LENS, time),
    };
    const [outside, hall] = joinCovers([{ start: 0, cover: shotCover(away, nothing, [STOREY], 16 / 9) }]);
    expect(outside!.seen).toBeCloseTo(2, 9);
    expect(hall).toMatchObject({ room: 'Hall', seen: 0, spans: [] });
    // A reel of cards has no camera at all.
    const cards = joinCovers([
      { start: 0, cover: unseenRooms([STOREY]) },
      { start: 0, cover: [] },
    ]);
    expect(cards).toMatchObject([{ room: 'Hall', storey: 'Ground', seen: 0 }]);
  });
});
