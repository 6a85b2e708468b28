import type { Pose, ProjectDocument, Row, ViewBody } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { toast } from 'sonner';
import { workbench } from '../../app/workbench.ts';
import { uploadFile } from '../../data/api.ts';
import { dispatch, saveQuietly } from '../../data/edits.ts';
import { orderAfter } from '../../data/order.ts';
import { liveRows } from '../../data/row-change.ts';
import { drawStill } from '../../picture/client.ts';

/** Keeps what the eye sees as a new named view. Returns its id. */
export function keepView(document: ProjectDocument, sample: CameraSample): string {
  const views = liveRows(document.view);
  const id = crypto.randomUUID();
  const body: ViewBody = { pose: poseOf(sample), lens: sample.lens, thumbnail: null };
  const name = `View ${views.length + 1}`;
  dispatch(document.project.id, `Keep ${name}`, [
    { op: 'create', kind: 'view', id, name, order: orderAfter(views), body },
  ]);
  workbench.selectView(id);
  toast(`Kept as ${name}`);
  return id;
}

/** Replaces the pose of a view, as the person asked. Its picture is drawn anew. */
export function updateView(row: Row<'view'>, sample: CameraSample): void {
  const body: ViewBody = { pose: poseOf(sample), lens: sample.lens, thumbnail: null };
  dispatch(row.projectId, `Update ${row.name}`, [{ op: 'change', kind: 'view', id: row.id, values: { body } }]);
  workbench.set({ scout: null });
}

const poseOf = ({ position, orientation }: CameraSample): Pose => ({ position, orientation });

const busy = new Set<string>();

/** Draws the picture of a view that has none, and saves it with the view. */
export async function drawThumbnail(row: Row<'view'>, aspect: number): Promise<void> {
  const key = `${row.id}:${JSON.stringify(row.body.pose)}`;
  if (busy.has(key)) return;
  busy.add(key);
  try {
    const { pose, lens } = row.body;
    const width = 640;
    const size = { width, height: Math.max(2, Math.round(width / aspect)) };
    const thumbnail = await uploadFile(await drawStill({ ...pose, lens }, size, 8), 'image/webp');
    saveQuietly(row.projectId, {
      op: 'change',
      kind: 'view',
      id: row.id,
      values: { body: { ...row.body, thumbnail } },
    });
  } catch {
    // A view without a picture still works; it is tried again the next time the shelf is shown.
  } finally {
    busy.delete(key);
  }
}
