import { aspectOf, type MoveBody, type Row } from '@eskovan/core/document';
import { compileMove, needsParts, type CompiledMove, type MoveSite } from '@eskovan/core/move';
import { useCallback, useMemo } from 'react';
import { useLead } from '../../desk/selection.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { useParts, useSiteMotion } from '../../site/use-parts.ts';
import { useSiteData } from '../../site/use-site.ts';

/** The selected move: the chosen one, else the first. */
export function useSelectedMove(): Row<'move'> | null {
  const { move } = useProject();
  const chosen = useLead('move');
  const rows = liveRows(move);
  return rows.find((row) => row.id === chosen) ?? rows[0] ?? null;
}

/**
 * What moves of this project are compiled on; null until it is known.
 * @param asksParts whether what parts there are, and where they are when, is asked too: see {@link needsParts}
 */
function useMoveSite(asksParts: boolean): MoveSite | null {
  const { data } = useSiteData();
  const footing = data?.footing ?? null;
  const { body: project } = useProject().project;
  const { walker, limits } = project;
  const aspect = aspectOf(project);
  const parts = useParts(asksParts);
  const motion = useSiteMotion(asksParts);
  return useMemo(
    () => footing && { footing, walker, parts, motion, aspect, limits },
    [footing, walker, parts, motion, aspect, limits],
  );
}

/** A move ready to be played, or null while there is not enough of it. */
export function useCompiledMove(body: MoveBody | null): CompiledMove | null {
  const site = useMoveSite(body !== null && needsParts(body));
  return useMemo(() => body && site && compileOnce(body, site), [body, site]);
}

/** Compiles any moves of this project; another deed as soon as one of them would be compiled on something else. */
export function useCompiling(rows: readonly Row<'move'>[]): (body: MoveBody) => CompiledMove | null {
  const still = useMoveSite(false);
  const moving = useMoveSite(rows.some(({ body }) => needsParts(body)));
  return useCallback(
    (body) => {
      const site = needsParts(body) ? moving : still;
      return site && compileOnce(body, site);
    },
    [still, moving],
  );
}

/** The shelf, the plan and the picture ask for the same move: it is made for the first of them. */
const made = new WeakMap<MoveBody, { site: MoveSite; move: CompiledMove | null }>();

function compileOnce(body: MoveBody, site: MoveSite): CompiledMove | null {
  const before = made.get(body);
  const same = before && (Object.keys(site) as (keyof MoveSite)[]).every((key) => before.site[key] === site[key]);
  if (same) return before.move;
  const move = compileMove(body, site);
  made.set(body, { site, move });
  return move;
}
