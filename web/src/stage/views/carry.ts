import { aspectOf, frameOf, type Frame, type ProjectDocument, type Row, type ViewBody } from '@eskovan/core/document';
import { readBcf, World, writeBcf, writeCameras, writeCsv, type Brought, type SentView } from '@eskovan/core/exchange';
import { zipFiles } from '@eskovan/core/format';
import { fileUrl } from '../../data/api.ts';
import { liveRows } from '../../data/changes.ts';
import { drawAside } from '../../picture/aside.ts';
import { sizeAcross, type PictureScene } from '../../picture/source.ts';
import { keepSeveral } from '../shared/keep-view.ts';

/** What views are carried out as. */
export type Carried = 'bcf' | 'glb' | 'csv' | 'pictures';

export interface CarryOrder {
  document: ProjectDocument;
  rows: readonly Row<'view'>[];
  /** The model whose file's coordinates are those of BCF; null for the project's own. */
  model: Row<'model'> | null;
  author: string;
}

/** The coordinates that BCF files speak: those of a model's own file. */
const worldOf = (model: Row<'model'> | null) => new World(model?.body.placement);

function sentView({ document }: CarryOrder, row: Row<'view'>): SentView {
  const { id, name, body } = row;
  return {
    id,
    name,
    number: liveRows(document.view).findIndex((view) => view.id === id) + 1,
    status: body.status ?? 'draft',
    ...(body.note && { note: body.note }),
    pose: body.pose,
    lens: body.lens,
    aspect: aspectOf({ frame: frameOf(body, document.project.body) }),
  };
}

export const sentViews = (order: CarryOrder): SentView[] => order.rows.map((row) => sentView(order, row));

export async function bcfFile(order: CarryOrder): Promise<Blob> {
  const views = await Promise.all(
    order.rows.map(async (row) => {
      const snapshot = await snapshotOf(row.body);
      return { ...sentView(order, row), ...(snapshot && { snapshot }) };
    }),
  );
  return new Blob([writeBcf(views, { world: worldOf(order.model), author: order.author, date: new Date() })], {
    type: 'application/octet-stream',
  });
}

/** The small picture of a view as other programs read it; null while there is none. */
async function snapshotOf({ thumbnail }: ViewBody): Promise<SentView['snapshot'] | null> {
  if (!thumbnail) return null;
  try {
    const answer = await fetch(fileUrl(thumbnail.sha256));
    const bitmap = await createImageBitmap(await answer.blob());
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
    bitmap.close();
    const png = await canvas.convertToBlob({ type: 'image/png' });
    return { bytes: new Uint8Array(await png.arrayBuffer()), type: 'png' };
  } catch {
    // A viewpoint without its picture still leads to the right place.
    return null;
  }
}

export const glbFile = async (order: CarryOrder): Promise<Blob> =>
  new Blob([await writeCameras(sentViews(order), order.document.project.name)], { type: 'model/gltf-binary' });

export const csvFile = (order: CarryOrder): Blob =>
  // A mark of the byte order tells table programs that it is UTF-8.
  new Blob(['\uFEFF', writeCsv(sentViews(order), order.document.project.body.sun.north)], { type: 'text/csv' });

interface PicturesOrder extends CarryOrder {
  width: number;
  sceneIn: (light: string | null | undefined) => PictureScene | null;
  onDone: (count: number) => void;
  signal: AbortSignal;
}

/**
 * Finished pictures of views, one after the other, in one zip.
 * @returns the zip, and names of views that could not be drawn
 */
export async function picturesFile(order: PicturesOrder): Promise<{ zip: Blob; failed: string[] }> {
  const files = new Map<string, Uint8Array>();
  const failed: string[] = [];
  for (const [i, row] of order.rows.entries()) {
    order.signal.throwIfAborted();
    const { number, name, pose, lens, aspect } = sentView(order, row);
    const scene = order.sceneIn(row.body.light);
    try {
      if (!scene) throw new Error('its light is not whole');
      const picture = await drawAside({
        scene,
        pose,
        lens,
        size: sizeAcross(order.width, aspect),
        finished: true,
        type: 'image/png',
      });
      files.set(
        `${String(number).padStart(3, '0')} ${safeName(name)}.png`,
        new Uint8Array(await picture.arrayBuffer()),
      );
    } catch {
      failed.push(name);
    }
    order.onDone(i + 1);
  }
  order.signal.throwIfAborted();
  return { zip: new Blob([zipFiles(files)], { type: 'application/zip' }), failed };
}

/** A name that every file system takes. */
// eslint-disable-next-line no-control-regex
export const safeName = (name: string): string => name.replaceAll(/[\u0000-\u001f<>:"/\\|?*]/g, '_').slice(0, 100);

/** Views of a BCF file, as they would be kept. @throws FormatError */
export function readViews(
  bytes: Uint8Array,
  fileName: string,
  document: ProjectDocument,
  model: Row<'model'> | null,
): Brought {
  return readBcf(bytes, fileName, worldOf(model), aspectOf({ frame: document.project.body.frame }));
}

/** Keeps views that a file brought, as one step of undo. */
export const keepBrought = ({ views }: Brought, document: ProjectDocument): void =>
  keepSeveral(
    document,
    `Keep ${views.length} ${views.length === 1 ? 'view' : 'views'} of a BCF file`,
    views.map(({ name, pose, lens, aspect }) => ({
      name,
      body: { pose, lens, light: null, thumbnail: null, ...ownFrame(aspect, document.project.body) },
    })),
  );

/** Ratios that differ by less than this part are the same. */
const SAME_RATIO = 0.002;

/** A view's own frame, where its picture has another ratio than the project's. */
function ownFrame(aspect: number | null, project: { frame: Frame }): { frame?: Frame } {
  if (aspect === null || Math.abs(aspect / aspectOf(project) - 1) < SAME_RATIO) return {};
  return { frame: { width: Number(aspect.toFixed(4)), height: 1 } };
}
