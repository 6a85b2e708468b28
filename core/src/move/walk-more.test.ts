import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEFAULT_LENS, type GazeSpan, type Key, type Walk } from '../document/index.ts';
import { anglesOf, nearestTurn, toDegrees, toRadians } from '../geometry/index.ts';
import { Footing } from '../survey/index.ts';
import { CompiledWalk } from './index.ts';

let serial = 0;
const id = () => `00000000-0000-4000-8000-${String((serial += 1)).padStart(12, '0')}`;
const key = (time: number, value: number): Key => ({ id: id(), anchor: { by: 'time', time }, value, ease: 'smooth' });
const nowhere = new Footing(new Float32Array(0));

/** Ten metres to the north, then ten to the east. */
const walk = (change: Partial<Walk> = {}): Walk => ({
  kind: 'walk',
  path: {
    nodes: [
      [0, 0],
      [0, -10],
      [10, -10],
    ].map(([x, z]) => ({ id: id(), x: x!, y: 0, z: z!, kind: 'corner', radius: 1 })),
    closed: false,
  },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: DEFAULT_LENS,
  ...change,
});
const span = (from: number, to: number, gaze: GazeSpan['gaze'], handOver = 1): GazeSpan => ({
  id: id(),
  from: { by: 'time', time: from },
  to: { by: 'time', time: to },
  gaze,
  handOver,
});
const look = (move: CompiledWalk, time: number) => anglesOf(move.sampleAt(time).orientation);
const rate = toRadians(60);
const turning = { rate, acceleration: toRadians(120) };

describe('gaze spans', () => {
  test('the eye is on its point within the span, and ahead outside it', () => {
    const point: [number, number, number] = [6, 1.6, -5];
    const move = new CompiledWalk(walk({ gazeSpans: [span(2, 7, { kind: 'point', point })] }), nowhere);
    const plain = new CompiledWalk(walk(), nowhere);
    for (const time of [3.2, 4.5, 5.8]) {
      const { position } = move.sampleAt(time);
      const wanted = Math.atan2(-(point[0] - position[0]), -(point[2] - position[2]));
      expect(nearestTurn(look(move, time).pan - wanted)).toBeCloseTo(0, 3);
    }
    for (const time of [0.5, 1.9, 7.1, 12])
      expect(nearestTurn(look(move, time).pan - look(plain, time).pan)).toBeCloseTo(0, 3);
  });

  test('spans that follow each other hand over to each other, not back to the way ahead', () => {
    const east = { kind: 'bearing' as const, pan: toRadians(-90), tilt: 0 };
    const northEast = { kind: 'bearing' as const, pan: toRadians(-60), tilt: 0 };
    const move = new CompiledWalk(walk({ gazeSpans: [span(1, 4, east), span(4, 7, northEast)] }), nowhere);
    for (let time = 2; time < 6; time += 0.1) expect(toDegrees(look(move, time).pan)).toBeLessThan(-59.9);
  });

  test('turning stays within its bounds, whatever the spans; what that costs is said', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            from: fc.double({ min: 0, max: 12, noNaN: true }),
            long: fc.double({ min: 0.5, max: 6, noNaN: true }),
            pan: fc.double({ min: -6, max: 6, noNaN: true }),
            tilt: fc.double({ min: -0.6, max: 0.6, noNaN: true }),
            handOver: fc.double({ min: 0, max: 2, noNaN: true }),
          }),
          { minLength: 1, maxLength: 4 },
        ),
        (wishes) => {
          const gazeSpans = wishes.map(({ from, long, pan, tilt, handOver }) =>
            span(from, from + long, { kind: 'bearing', pan, tilt }, handOver),
          );
          const move = new CompiledWalk(walk({ gazeSpans }), nowhere, { turning });
          const dt = 0.02;
          let before = look(move, 0).pan;
          let worst = 0;
          for (let time = dt; time < move.duration; time += dt) {
            const now = nearestTurn(look(move, time).pan, before);
            worst = Math.max(worst, Math.abs(now - before) / dt);
            before = now;
          }
          expect(worst).toBeLessThan(rate * 1.02);
        },
      ),
      { numRuns: 40 },
    );
    const flick = walk({ gazeSpans: [span(3, 3.4, { kind: 'bearing', pan: Math.PI / 2, tilt: 0 }, 0)] });
    expect(new CompiledWalk(flick, nowhere, { turning }).gazeOff.length).toBeGreaterThan(0);
  });

  test('a span whose node is gone is counted', () => {
    const lost: GazeSpan = {
      ...span(0, 1, { kind: 'bearing', pan: 0, tilt: 0 }),
      from: { by: 'node', node: id(), offset: 0 },
    };
    expect(new CompiledWalk(walk({ gazeSpans: [lost] }), nowhere).lostKeys).toBe(1);
  });
});

describe('what changes along a walk', () => {
  test('lifts raise the eye and keep it on what it looks at', () => {
    const gaze = { kind: 'point' as const, point: [5, 1.6, -5] as [number, number, number] };
    const move = new CompiledWalk(walk({ gaze, tracks: { lift: [key(0, 0), key(8, 2)] } }), nowhere);
    expect(move.sampleAt(0).position[1]).toBeCloseTo(1.6, 6);
    const { position, orientation } = move.sampleAt(8);
    expect(position[1]).toBeCloseTo(3.6, 6);
    const down = Math.atan2(1.6 - 3.6, Math.hypot(5 - position[0], -5 - position[2]));
    expect(anglesOf(orientation).tilt).toBeCloseTo(down, 3);
    const section = move.channels.find(({ id: name }) => name === 'section')!;
    expect(section.at(8)).toBeCloseTo(3.6, 6);
    expect(section.track!.base!(8)).toBeCloseTo(1.6, 6);
  });

  test('roll, focus, f-number and exposure are what their keys say, alone and in batches', () => {
    const move = new CompiledWalk(
      walk({
        tracks: { roll: [key(2, 10)], focus: [key(2, 3)], fNumber: [key(2, 2.8)], exposure: [key(1, 0), key(3, 1)] },
      }),
      nowhere,
    );
    const sample = move.sampleAt(3);
    expect(toDegrees(anglesOf(sample.orientation).roll)).toBeCloseTo(10, 9);
    expect(sample.view).toMatchObject({ focus: 3, fNumber: 2.8 });
    expect(sample.exposure).toBeCloseTo(1, 9);
    const batch = new Float64Array(11);
    move.fill([3], batch);
    expect([...batch.subarray(3, 7)]).toEqual([...sample.orientation]);
    expect([batch[8], batch[9], batch[10]]).toEqual([3, 2.8, 1]);
  });

  test('a pause on the way stands still, and keys behind it come later', () => {
    const pauses = [{ id: id(), anchor: { by: 'station' as const, station: 8 }, seconds: 4 }];
    const nodeKey: Key = { id: id(), anchor: { by: 'station', station: 12 }, value: 50, ease: 'smooth' };
    const tracks = { focalLength: [nodeKey] };
    const plain = new CompiledWalk(walk({ tracks }), nowhere);
    const paused = new CompiledWalk(
      walk({ tracks, pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft', pauses } }),
      nowhere,
    );
    const from = paused.pace.pauses![0]!.from;
    const [a, b] = [paused.sampleAt(from + 0.1).position, paused.sampleAt(from + 3.9).position];
    expect(Math.hypot(a[0] - b[0], a[2] - b[2])).toBeLessThan(1e-3);
    const when = (move: CompiledWalk) => move.channels.find(({ id: name }) => name === 'lens')!.track!.keys[0]!.time;
    expect(when(paused) - when(plain)).toBeGreaterThan(4);
  });
});
