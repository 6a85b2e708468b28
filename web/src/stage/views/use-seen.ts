import { DEFAULT_LENS, sameValues, type Lens, type Row, type StillCamera } from '@eskovan/core/document';
import { editBody } from '../../data/edit-row.ts';
import { currentRow } from '../../data/edits.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';

/** The lens that is seen through. */
export function useSeenLens(row: Row<'view'> | null): Lens {
  const lens = useWorkbench((state) => (state.scout ? state.scoutLens : null));
  return lens ?? row?.body.lens ?? DEFAULT_LENS;
}

/** A view as it is at this instant. */
const keptOf = (row: Row<'view'> | null) => (row && currentRow(row.projectId, 'view', row.id)?.body) ?? null;

/**
 * The camera of this instant: what somebody has typed may be shown a moment later, and what is done next begins from it.
 * @param otherwise where neither the eye is free nor a view is chosen
 */
export function seenNow(row: Row<'view'> | null, otherwise: StillCamera): StillCamera {
  const { scout, scoutLens } = workbench.get();
  const kept = keptOf(row);
  return {
    pose: scout ?? kept?.pose ?? otherwise.pose,
    lens: (scout && scoutLens) ?? kept?.lens ?? otherwise.lens,
  };
}

/** Looks as another camera would, and changes nothing that is kept. */
export function scoutAs({ pose, lens }: StillCamera): void {
  workbench.set({ scout: pose, scoutLens: lens });
}

/**
 * Gives what is seen another camera: the view its own, where it is the view that is seen and not locked; else the free
 * eye.
 * @param label what is done, for undo
 */
export function changeCamera(row: Row<'view'> | null, label: string, { pose, lens }: StillCamera): void {
  const kept = keptOf(row);
  if (!row || !kept || kept.locked || workbench.get().scout) scoutAs({ pose, lens });
  else if (!sameValues([pose, lens], [kept.pose, kept.lens]))
    editBody('view', row, label, (body) => ({ ...body, pose, lens, thumbnail: null }));
}

/** A lens again, of what had none: whole, with nothing cut off. Others stay as they are. */
export function withPerspective(lens: Lens): Lens {
  if (lens.parallel === undefined) return lens;
  const { parallel: _, nearCut: __, farCut: ___, ...through } = lens;
  return through;
}
