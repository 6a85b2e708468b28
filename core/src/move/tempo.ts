import type { MoveBody } from '../document/index.ts';

/** A move that goes at a part of its speed: what takes its time from a speed gets another speed. */
export function atTempo<B extends MoveBody>(body: B, factor: number): B {
  if (body.kind === 'orbit') return { ...body, duration: body.duration / factor };
  const { pace } = body;
  return { ...body, pace: { ...pace, speed: pace.speed * factor, duration: pace.duration / factor } };
}
