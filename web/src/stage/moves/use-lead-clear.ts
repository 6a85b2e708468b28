import type { Row } from '@eskovan/core/document';
import { moveClear } from '@eskovan/core/wayfind';
import { useProject } from '../../data/use-project.ts';
import { useSiteData } from '../../site/use-site.ts';
import { editMove } from './edit-move.ts';

/** Leads the path of a walk clear of what a stretch of it is too near to; stations in metres. */
export function useLeadClear(row: Row<'move'>): (stretch: readonly [from: number, to: number]) => void {
  const { walker } = useProject().project.body;
  const { data: site } = useSiteData();
  return (stretch) => {
    if (!site) return;
    editMove(row, 'walk', 'Lead the path clear', (body) => ({
      ...body,
      path: moveClear(body.path, stretch, site.footing, { ...walker, eyeHeight: body.eyeHeight }, () =>
        crypto.randomUUID(),
      ),
    }));
  };
}
