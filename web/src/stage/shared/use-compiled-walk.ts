import { followTarget } from '@eskovan/core/action';
import type { MoveBody, Row } from '@eskovan/core/document';
import { aimWalk } from '@eskovan/core/gaze';
import { CompiledWalk } from '@eskovan/core/move';
import { useMemo } from 'react';
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

/** A walk ready to be played, or null while its path has no length yet. */
export function useCompiledWalk(body: MoveBody | null): CompiledWalk | null {
  const { data } = useSiteData();
  const footing = data?.footing ?? null;
  const { walker } = useProject().project.body;
  const atObject = body?.gaze.kind === 'object';
  const parts = useParts(atObject);
  const motion = useSiteMotion(atObject);
  return useMemo(() => {
    if (!body || !footing) return null;
    try {
      const { gaze } = body;
      const target = motion && gaze.kind === 'object' ? followTarget(gaze, parts, motion) : null;
      return new CompiledWalk(aimWalk(body, parts), footing, { walker, target });
    } catch (error) {
      // A path of one place has no direction: that is a state of drawing, not a fault.
      if (error instanceof RangeError) return null;
      throw error;
    }
  }, [body, footing, walker, parts, motion]);
}
