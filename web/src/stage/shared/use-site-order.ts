import { aspectOf } from '@eskovan/core/document';
import { useMemo } from 'react';
import { fileUrl } from '../../data/api.ts';
import { useProject } from '../../data/use-project.ts';
import { useMoving } from '../../site/use-parts.ts';
import { useSite } from '../../site/use-site.ts';
import type { SiteOrder } from '../../worker/site-order.ts';

/**
 * What workers compile and check moves in, the same as long as nothing of it changes; null while nothing is measured.
 * @param asksParts whether what parts there are, and where they are when, is asked too
 */
export function useSiteOrder(asksParts: boolean): SiteOrder | null {
  const { body: project } = useProject().project;
  const floor = useSite()?.floor.sha256;
  const { parts, moving } = useMoving(asksParts);
  const { walker, limits } = project;
  const aspect = aspectOf(project);
  return useMemo(
    () => (floor ? { floorUrl: fileUrl(floor), walker, limits, aspect, parts: asksParts ? parts : [], moving } : null),
    [floor, walker, limits, aspect, asksParts, parts, moving],
  );
}
