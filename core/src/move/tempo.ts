import type { MoveBody } from '../document/index.ts';

/** A move that goes at a part of its speed: what takes its time from a speed gets another speed. */
export function atTempo<B extends MoveBody>(body: B, factor: number): B {
  if (body.kind === 'travel') {
    const poses = body.poses.map((pose) => ({ ...pose, time: pose.time / factor, hold: pose.hold / factor }));
    return { ...body, poses };
  }
  if (!('pace' in body)) return { ...body, duration: body.duration / factor };
  const { pace } = body;
  const { marks, pins } = pace;
  return {
    ...body,
    pace: {
      ...pace,
      speed: pace.speed * factor,
      duration: pace.duration / factor,
      ...(marks && { marks: marks.map((mark) => ({ ...mark, speed: mark.speed * factor })) }),
      ...(pins && { pins: pins.map((pin) => ({ ...pin, time: pin.time / factor })) }),
    },
  };
}
