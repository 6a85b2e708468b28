import {
  aspectOf,
  DEFAULT_LENS,
  frameOf,
  LEAST_EXPOSURE,
  MOST_EXPOSURE,
  sameValues,
  type Frame,
  type Lens,
  type Pose,
  type ProjectBody,
  type ProjectDocument,
  type Row,
  type ViewBody,
} from '@eskovan/core/document';
import { standing, type CameraSample } from '@eskovan/core/move';
import { toast } from 'sonner';
import { workbench } from '../../desk/workbench.ts';
import { uploadFile } from '../../data/api.ts';
import { makeRow, editBody } from '../../data/edit-row.ts';
import { currentRow, givenOf, saveForMachine } from '../../data/edits.ts';
import { dispatch, inGesture } from '../../data/undo.ts';
import { orderAfter } from '../../data/order.ts';
import { changing, liveRows, making } from '../../data/changes.ts';
import { drawAside } from '../../picture/aside.ts';
import { drawStillInTurn } from '../../picture/client.ts';
import { sizeAcross, type PictureScene } from '../../picture/source.ts';

/**
 * Keeps what the eye sees as a new named view. Returns its id.
 * @param light the named light that it is seen in
 * @param frame the frame that it is seen in, where that is not the project's
 */
export function keepView(
  document: ProjectDocument,
  sample: CameraSample,
  light: string | null | undefined,
  frame?: Frame,
): string {
  const views = liveRows(document.view);
  const body: ViewBody = { ...viewOf(sample, light), ...(frame && { frame }) };
  const name = `View ${views.length + 1}`;
  const id = makeRow('view', document.project.id, `Keep ${name}`, { name, order: orderAfter(views), body });
  workbench.selectView(id);
  toast(`Kept as ${name}`);
  return id;
}

/** What is seen, as a view. */
export const viewOf = (sample: CameraSample, light: string | null | undefined): ViewBody => {
  return { pose: poseOf(sample), lens: lensOf(sample), light: light ?? null, thumbnail: null };
};

/** Keeps views that come from elsewhere, below the others, as one step of undo. @param label what is done */
export function keepSeveral(
  document: ProjectDocument,
  label: string,
  views: readonly { name: string; body: ViewBody }[],
): void {
  const first = orderAfter(liveRows(document.view));
  dispatch(
    document.project.id,
    label,
    views.map((view, i) => making('view', { id: crypto.randomUUID(), order: first + i, ...view })),
  );
}

/** Replaces the pose of a view, as the person asked. Its picture is drawn anew. */
export function updateView(row: Row<'view'>, sample: CameraSample): void {
  editBody('view', row, `Update ${row.name}`, (body) => ({
    ...body,
    pose: poseOf(sample),
    lens: lensOf(sample),
    thumbnail: null,
  }));
  workbench.set({ scout: null });
}

const poseOf = ({ position, orientation }: CameraSample): Pose => ({ position, orientation });

const lensOf = ({ view, exposure }: CameraSample): Lens => {
  // What a move is darkened or lightened by may go further than what a view keeps.
  const kept = Math.min(MOST_EXPOSURE, Math.max(LEAST_EXPOSURE, exposure));
  const light = kept === 0 ? {} : { exposure: kept };
  if (view.kind === 'lens') {
    const { kind: _, ...lens } = view;
    return { ...lens, ...light };
  }
  const { kind: _, height, ...lens } = view;
  return { ...DEFAULT_LENS, ...lens, parallel: height, ...light };
};

const busy = new Set<string>();
/** The longer side of a view's picture, pixels. */
const LONG_SIDE = 640;
/** What a view's picture depends on. */
const FACETS = ['pose', 'lens', 'light', 'frame'] as const;

/**
 * Draws the picture of a view that has none, and saves it with the view.
 * @param of the name of the scene that is shown, or another one to draw aside
 */
export async function drawThumbnail(
  row: Row<'view'>,
  project: Pick<ProjectBody, 'frame'>,
  of: { shown: string } | { aside: PictureScene },
): Promise<void> {
  const { pose, lens, light, frame } = row.body;
  const key = `${row.id}:${JSON.stringify([pose, lens, light, frame])}`;
  if (busy.has(key) || inGesture()) return;
  busy.add(key);
  try {
    const aspect = aspectOf({ frame: frameOf(row.body, project) });
    const size = sizeAcross(Math.round(LONG_SIDE * Math.min(1, aspect)), aspect);
    // Whoever has moved or changed the lens meanwhile gets another picture; this one is of what was.
    const asItWas = () => {
      const now = currentRow(row.projectId, 'view', row.id);
      return now && !now.deleted && FACETS.every((facet) => sameValues(now.body[facet], row.body[facet])) ? now : null;
    };
    const drawn =
      'aside' in of
        ? await drawAside({ scene: of.aside, pose, lens, size })
        : await drawStillInTurn(of.shown, standing(pose, lens), size, 8, () => asItWas() !== null);
    const thumbnail = drawn && (await uploadFile(drawn, 'image/webp'));
    const now = asItWas();
    if (!thumbnail || !now) return;
    saveForMachine(
      row.projectId,
      `Picture of ${row.name}`,
      changing('view', now, { body: { ...now.body, thumbnail } }),
      givenOf('view', now, FACETS),
    );
  } catch {
    // A view without a picture still works; it is tried again the next time the shelf is shown.
  } finally {
    busy.delete(key);
  }
}
