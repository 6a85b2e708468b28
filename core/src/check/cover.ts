/** How long something is seen. */
export interface Cover {
  /** Seconds in which it is in the picture. */
  seen: number;
  /** Stretches in which it is, seconds. */
  spans: [from: number, to: number][];
}

/** How often a camera is asked what it shows, seconds; longer moves are asked more seldom, at most so often. */
const INSTANT = 0.25;
const MOST = 600;

/**
 * Even steps over a move; the middle of each stands for all of it.
 * @param duration seconds @param most as many at most
 */
export function stepsOver(duration: number, most = MOST): { from: number; at: number; to: number }[] {
  const count = Math.max(1, Math.min(most, Math.ceil(duration / INSTANT)));
  const step = duration / count;
  return Array.from({ length: count }, (_, i) => ({ from: i * step, at: (i + 0.5) * step, to: (i + 1) * step }));
}

/** Something is seen in a stretch that begins no earlier than those before it; stretches that touch are one. */
export function addSpan(spans: Cover['spans'], [from, to]: readonly [number, number]): void {
  const last = spans.at(-1);
  if (last && from - last[1] < 1e-6) last[1] = Math.max(last[1], to);
  else spans.push([from, to]);
}

/** What shots show, one after the other: what has one key is one thing. @param add what else is summed up */
export function joinedCovers<T extends Cover>(
  shots: readonly { start: number; cover: readonly T[] }[],
  keyOf: (cover: T) => string,
  add: (sum: T, cover: T) => void = () => undefined,
): T[] {
  const joined = new Map<string, T>();
  for (const { start, cover } of shots)
    for (const one of cover) {
      const spans = one.spans.map(([from, to]): [number, number] => [start + from, start + to]);
      const sum = joined.get(keyOf(one));
      if (!sum) {
        joined.set(keyOf(one), { ...one, spans });
        continue;
      }
      sum.seen += one.seen;
      for (const span of spans) addSpan(sum.spans, span);
      add(sum, one);
    }
  return [...joined.values()];
}
