import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { frameAt, frameCount, frameOf, frameTime, timecodeOf } from './index.ts';

const ntsc = { num: 30_000, den: 1001 };
const ntsc60 = { num: 60_000, den: 1001 };
const rates = [{ num: 24, den: 1 }, { num: 25, den: 1 }, { num: 30, den: 1 }, { num: 24_000, den: 1001 }, ntsc, ntsc60];

describe('timecode', () => {
  // Source: the drop-frame counting rule of SMPTE ST 12-1 and its usual table of turning points.
  test.each([
    [0, '00:00:00;00'],
    [1799, '00:00:59;29'],
    [1800, '00:01:00;02'],
    [3597, '00:01:59;29'],
    [3598, '00:02:00;02'],
    [17_981, '00:09:59;29'],
    [17_982, '00:10:00;00'],
    [107_892, '01:00:00;00'],
    [2_589_408, '24:00:00;00'],
  ])('29.97 drop: frame %i is %s', (frame, label) => {
    expect(timecodeOf(frame, ntsc)).toBe(label);
    expect(frameOf(label, ntsc)).toBe(frame);
  });

  test.each([
    [3599, '00:00:59;59'],
    [3600, '00:01:00;04'],
    [35_964, '00:10:00;00'],
  ])('59.94 drop: frame %i is %s', (frame, label) => expect(timecodeOf(frame, ntsc60)).toBe(label));

  test('25 and 24 count every number', () => {
    expect(timecodeOf(90_000, { num: 25, den: 1 })).toBe('01:00:00:00');
    expect(timecodeOf(1439, { num: 24, den: 1 })).toBe('00:00:59:23');
  });

  test('frame ↔ timecode is a bijection at every rate', () => {
    fc.assert(
      fc.property(fc.constantFrom(...rates), fc.nat(3_000_000), (rate, frame) => {
        expect(frameOf(timecodeOf(frame, rate), rate)).toBe(frame);
      }),
    );
  });

  test('consecutive frames have labels that rise', () => {
    for (let frame = 1700; frame < 1900; frame += 1)
      expect(timecodeOf(frame + 1, ntsc) > timecodeOf(frame, ntsc)).toBe(true);
  });

  test.each(['00:01:00;00', '00:01:00;01', '1:2:3', '00:00:00:30', ''])('refuses the label %p', (label) => {
    expect(() => frameOf(label, ntsc)).toThrow(RangeError);
  });

  test('frame instants and counts', () => {
    expect(frameTime(48, { num: 24, den: 1 })).toBe(2);
    expect(frameTime(30_000, ntsc)).toBe(1001);
    expect(frameCount(2, { num: 24, den: 1 })).toBe(48);
    expect(frameCount(0.001, { num: 24, den: 1 })).toBe(1);
    fc.assert(
      fc.property(fc.constantFrom(...rates), fc.nat(100_000), (rate, frame) => {
        expect(frameAt(frameTime(frame, rate), rate)).toBe(frame);
      }),
    );
  });
});
