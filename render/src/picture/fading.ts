/** One pass of a picture in which something fades: what is there to a larger part than `share` is in it. */
export interface FadedPass {
  share: number;
  /** Of the whole picture; all of them make one. */
  weight: number;
}

/** Parts closer together than this are drawn as one. */
const ALIKE = 1 / 512;

/**
 * What fades is not drawn through: it is there in some passes of a picture and not in others, which weigh as much as it is
 * there. Its shadow, its mirror image and its place behind glass fade with it, in light and not in colours. Several things
 * that fade are there to different parts: between two of those the passes see the same. Each such stretch has at least one
 * pass, and as many as it is long, so that edges are as smooth as ever.
 * @param presences how much of things is there, 0…1; null where nothing fades
 * @param count of passes, at least one
 */
export function fadedPasses(presences: readonly number[] | null, count: number): FadedPass[] {
  const levels = levelsOf(presences ?? [], count);
  const ends = [0, ...levels, 1];
  const stretches = ends.slice(1).map((to, i) => ({ from: ends[i]!, to, passes: 1 }));
  for (let left = count - stretches.length; left > 0; left -= 1) {
    // The one whose passes weigh most gets another.
    const heaviest = stretches.reduce((a, b) => ((b.to - b.from) / b.passes > (a.to - a.from) / a.passes ? b : a));
    heaviest.passes += 1;
  }
  const passes = stretches.flatMap(({ from, to, passes: n }) =>
    Array.from({ length: n }, () => ({ share: (from + to) / 2, weight: (to - from) / n })),
  );
  return spread(passes);
}

/** The different parts to which things are there, in order; at most one less than there are passes. */
function levelsOf(presences: readonly number[], count: number): number[] {
  const sorted = [...new Set(presences)].filter((part) => part > 0 && part < 1).sort((a, b) => a - b);
  const levels: number[] = [];
  for (const part of sorted) if (part - (levels.at(-1) ?? 0) > ALIKE && part < 1 - ALIKE) levels.push(part);
  // Of too many the nearest two are drawn as one.
  while (levels.length > count - 1) {
    const gaps = levels.map((part, i) => part - (levels[i - 1] ?? 0));
    levels.splice(gaps.indexOf(Math.min(...gaps)), 1);
  }
  return levels;
}

/** Passes that see the same are not next to each other: pixel, lens and shutter go evenly through each kind. */
function spread(passes: readonly FadedPass[]): FadedPass[] {
  const { length } = passes;
  const order = passes.map((pass, i) => ({ pass, at: (i * GOLDEN) % 1 }));
  return length < 3 ? [...passes] : order.sort((a, b) => a.at - b.at).map(({ pass }) => pass);
}
const GOLDEN = 0.6180339887;
