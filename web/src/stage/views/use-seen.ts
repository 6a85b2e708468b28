import { DEFAULT_LENS, sameValues, type Lens, type Pose, type Row } from '@eskovan/core/document';
import { editBody } from '../../data/edit-row.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';

/** The camera of the picture: that of a view, or of the free eye. */
export interface Seen {
  pose: Pose;
  lens: Lens;
}

/** The lens that is seen through. */
export function useSeenLens(row: Row<'view'> | null): Lens {
  const lens = useWorkbench((state) => (state.scout ? state.scoutLens : null));
  return lens ?? row?.body.lens ?? DEFAULT_LENS;
}

/** Looks as another camera would, and changes nothing that is kept. */
export function scoutAs({ pose, lens }: Seen): void {
  workbench.set({ scout: pose, scoutLens: lens });
}

/**
 * Gives what is seen another lens: the view its own, where it is the view that is seen and not locked; else the free
 * eye.
 */
export function changeLens(row: Row<'view'> | null, pose: Pose, lens: Lens): void {
  if (!row || row.body.locked || workbench.get().scout) scoutAs({ pose, lens });
  else if (!sameValues(lens, row.body.lens))
    editBody('view', row, 'Lens', (body) => ({ ...body, lens, thumbnail: null }));
}

/** The same for pose and lens together. @param label what is done, for undo */
export function changeCamera(row: Row<'view'> | null, label: string, camera: Seen): void {
  if (!row || row.body.locked || workbench.get().scout) scoutAs(camera);
  else editBody('view', row, label, (body) => ({ ...body, ...camera, thumbnail: null }));
}
