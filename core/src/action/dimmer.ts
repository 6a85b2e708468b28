import { isWithin, type DimAction, type PartPath } from '../document/index.ts';
import { runOf } from './runs.ts';
import type { SiteAction } from './site-action.ts';

/** Lamps that get brighter and darker together. */
export interface Dimmer extends PartPath {
  /** What they give of their light, 0…1. @param time seconds into the move */
  levelAt(time: number): number;
}

/** So many groups of lamps at most are dimmed: the light of each is gathered by itself. */
export const MOST_DIMMERS = 6;

/**
 * The lamps that actions dim. Several actions of the same lamps follow each other: the last one that has begun says what
 * they give, and before the first one they are as it finds them. Of lamps within others the first ones named count; see
 * {@link isOvershadowed}.
 */
export function dimmersOf(actions: readonly SiteAction[]): Dimmer[] {
  const groups: DimAction[][] = [];
  for (const action of actions) {
    if (action.kind !== 'dim') continue;
    const same = groups.find(([first]) => first!.model === action.model && first!.part === action.part);
    if (same) same.push(action);
    else if (groups.length < MOST_DIMMERS && !groups.some(([first]) => overlaps(first!, action))) groups.push([action]);
  }
  return groups.map((group) => {
    const { model, part } = group[0]!;
    const steps = [...group]
      .sort((a, b) => a.start - b.start)
      .map((action) => ({ start: action.start, levelAt: levelOf(action) }));
    return {
      model,
      name: part,
      levelAt: (time) => (steps.findLast(({ start }) => start <= time) ?? steps[0]!).levelAt(time),
    };
  });
}

/** Does an action do nothing because others have its lamps, or have all dimmers that there are? */
export const isOvershadowed = (action: DimAction, all: readonly SiteAction[]): boolean =>
  !dimmersOf(all).some(({ model, name }) => model === action.model && name === action.part);

const overlaps = (a: DimAction, b: DimAction) =>
  a.model === b.model && (isWithin(a.part, b.part) || isWithin(b.part, a.part));

function levelOf({ from, to, switches, ...run }: DimAction): (time: number) => number {
  if (switches) return (time) => (time >= run.start ? to : from);
  const done = runOf(run);
  return (time) => from + (to - from) * done(time);
}
