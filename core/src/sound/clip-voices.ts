import type { ShotUse } from '../document/index.ts';
import { frameTime, halfDip, type ReelPlan } from '../reel/index.ts';
import type { Voice } from './mix.ts';

/** A sound that begins or ends at a cut swells or dies away over so long, seconds: else it clicks (common practice, no source). */
const EDGE = 0.005;

/** The sound of a clip, at the place of its shot. */
export interface ClipVoice {
  shot: string;
  sha256: string;
  /** Where in the file it ends, seconds. */
  to: number;
  voice: Voice;
}

/**
 * What is heard of the clips of a reel: each as long as its shot, one dying away as the next swells where shots overlap or dip.
 * What runs backwards is silent.
 * @param useOf what the shot at a place shows
 */
export function clipVoices(plan: ReelPlan, useOf: (index: number) => ShotUse): ClipVoice[] {
  return plan.shots.flatMap((planned, index) => {
    const use = useOf(index);
    const gain = use.kind === 'clip' ? (use.gain ?? 1) : 0;
    if (use.kind !== 'clip' || planned.backwards || planned.lost === 'gone' || gain === 0) return [];
    const { shots, rate } = plan;
    const [start, end] = [planned.start, planned.start + planned.frames].map((frame) => frameTime(frame, rate)) as [
      number,
      number,
    ];
    const fade = (joined: (typeof shots)[number] | undefined) => {
      if (joined?.join?.kind === 'dip') return frameTime(halfDip(joined.join, planned.frames, rate), rate);
      return Math.max(EDGE, frameTime(joined?.overlap ?? 0, rate));
    };
    const [fadeIn, fadeOut] = [fade(planned), fade(shots[index + 1])];
    const { from, to, speed } = planned;
    return [
      { shot: planned.id, sha256: use.file.sha256, to, voice: { from, start, end, speed, fadeIn, fadeOut, gain } },
    ];
  });
}
