import { FIRST_WALKER, type CheckLimits, type MoveBody } from '../document/index.ts';
import type { CompiledMove } from '../move/index.ts';
import { mended } from './fix.ts';
import { fastTurns, turnedBy } from './turning.ts';

/** A turn that was given time may be next to one that was hidden by it: so often all of them are looked at. */
const ROUNDS = 4;

interface CalmSite {
  compile: (body: MoveBody) => CompiledMove | null;
  limits: CheckLimits;
  newId: () => string;
}

/**
 * A move whose turns to and from what is looked at, and on the spot where it stays, get the time that people need to follow
 * them: such stays are longer, and such turns begin earlier. Turns along the way stay as they are, and so does what crosses the
 * picture sooner than one would wish: to show all that one turns past takes longer than anybody stays.
 */
export function calmed<B extends MoveBody>(body: B, { compile, limits, newId }: CalmSite): B {
  let now: MoveBody = body;
  for (let round = 0; round < ROUNDS; round += 1) {
    const move = compile(now);
    const fixes = move ? fastTurns(move, limits).map(({ fix }) => fix) : [];
    const soft = fixes.filter((fix) => fix?.kind === 'softer turn');
    if (!move || soft.length === 0) break;
    const touched = new Set<string>();
    for (const fix of soft) {
      // Each look and each stay is mended once as it was found; what is left then, the next round sees.
      const ids = turnedBy(move, fix).map(({ id }) => id);
      if (ids.some((id) => touched.has(id))) continue;
      ids.forEach((id) => touched.add(id));
      now = mended(now, fix, { move, footing: null, walker: FIRST_WALKER, limits, newId });
    }
  }
  return now as B;
}
