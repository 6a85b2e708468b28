import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEFAULT_LENS, FIRST_LIMITS, type Walk } from '../document/index.ts';
import { orientationOf } from '../geometry/index.ts';
import { CompiledWalk, standing, type CameraSample } from '../move/index.ts';
import { Footing } from '../survey/index.ts';
import { turnFindings as findTurns } from './index.ts';

const turnFindings = (move: Parameters<typeof findTurns>[0]) => findTurns(move, FIRST_LIMITS);

const degrees = (value: number) => (value * Math.PI) / 180;
/** A camera that pans as it is told. */
const panning = (duration: number, panAt: (time: number) => number) => ({
  duration,
  sampleAt: (time: number): CameraSample =>
    standing(
      { position: [0, 1.6, 0], orientation: orientationOf({ pan: panAt(time), tilt: 0.2, roll: 0 }) },
      DEFAULT_LENS,
    ),
});

describe('turning too fast', () => {
  test('is a steady pan beyond the limits, with its rate', () => {
    expect(turnFindings(panning(8, (t) => degrees(25) * t))).toEqual([]);
    const [note] = turnFindings(panning(8, (t) => degrees(45) * t));
    expect(note).toMatchObject({ severity: 'note', from: 0, to: expect.closeTo(8, 6) });
    expect(note!.worst).toBeCloseTo(degrees(45), 3);
    const [problem] = turnFindings(panning(8, (t) => degrees(70) * t));
    expect(problem!.severity).toBe('problem');
  });

  test('names each stretch once, and where it is worst', () => {
    const swing = (at: number) => (t: number) => degrees(60) * Math.tanh(1.5 * (t - at));
    const findings = turnFindings(panning(20, (t) => swing(4)(t) + swing(14)(t)));
    expect(findings).toHaveLength(2);
    // The slope of 60° tanh(1.5 t) is at most 90° a second.
    expect(findings.map(({ at }) => at)).toEqual([expect.closeTo(4, 1), expect.closeTo(14, 1)]);
    for (const { worst } of findings) expect(worst).toBeCloseTo(degrees(90), 1);
  });

  test('of a walk past an object is the pace over the distance at which it is passed', () => {
    const walk = (distance: number): Walk => ({
      kind: 'walk',
      path: {
        closed: false,
        nodes: [-8, 8].map((x, i) => ({
          id: `00000000-0000-4000-8000-00000000010${i}`,
          x,
          y: 0,
          z: 0,
          kind: 'smooth',
          radius: 0.5,
        })),
      },
      eyeHeight: 1.6,
      pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'constant' },
      gaze: {
        kind: 'object',
        model: '00000000-0000-4000-8000-000000000001',
        name: 'Lamp',
        point: [0, 1.6, distance],
        centre: [0, 1.6, distance],
      },
      lens: DEFAULT_LENS,
    });
    const nowhere = new Footing(new Float32Array(0));
    const [finding] = turnFindings(new CompiledWalk(walk(1), nowhere));
    expect(finding!.worst).toBeCloseTo(1.2 / 1, 1);
    expect(finding!.severity).toBe('problem');
    expect(turnFindings(new CompiledWalk(walk(4), nowhere))).toEqual([]);
  });

  test('never fires below the limit, whatever way it goes', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -28, max: 28, noNaN: true }),
        fc.double({ min: 0.05, max: 40, noNaN: true }),
        (rate, duration) => {
          expect(turnFindings(panning(duration, (t) => degrees(rate) * t))).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('a move without a length has none', () => {
    expect(turnFindings(panning(0, () => 0))).toEqual([]);
  });
});
