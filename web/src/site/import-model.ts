import type { BodyOf, Row } from '@eskovan/core/document';
import { READER, type SceneCamera } from '@eskovan/core/format';
import { asBefore, changesOfFile, lineUp, placementFor, type FileChanges } from '@eskovan/core/site';
import { create } from 'zustand';
import { fetchFile, uploadFile } from '../data/api.ts';
import { changing } from '../data/changes.ts';
import { editBody, makeRow } from '../data/edit-row.ts';
import { currentModels, currentRow, givenOf, saveForMachine } from '../data/edits.ts';
import { workUnderWay } from '../data/unfinished.ts';
import type { ImportResult } from '../worker/import.worker.ts';
import { listParts } from '../picture/client.ts';
import { readFile } from './read-file.ts';

export type Step = 'read' | 'store';
export const STEPS: Record<Step, string> = { read: 'Reading the file', store: 'Storing' };

/** Share of each step in the whole, as it usually comes out. */
const SHARE: Record<Step, readonly [from: number, to: number]> = { read: [0, 0.6], store: [0.6, 1] };

interface ImportState {
  /** The import under way, if any; it goes on while other screens are used. */
  running: { projectId: string; fileName: string; step: Step; fraction: number; cancel: () => void } | null;
  failure: { projectId: string; message: string } | null;
  /** Cameras that came with the last model, until they are kept or declined. */
  cameras: { projectId: string; modelId: string; cameras: SceneCamera[] } | null;
  /** Names of changed parts that the newer file of a model does not have any more. */
  lost: { projectId: string; modelId: string; names: string[] } | null;
  /** What a newer file has changed, until it is seen. */
  changes: { projectId: string; modelId: string; changes: FileChanges } | null;
}

export const useImport = create<ImportState>()(() => ({
  running: null,
  failure: null,
  cameras: null,
  lost: null,
  changes: null,
}));

export const dismissFailure = () => useImport.setState({ failure: null });
export const dismissCameras = () => useImport.setState({ cameras: null });
export const dismissChanges = () => useImport.setState({ changes: null });
export const dismissLost = () => useImport.setState({ lost: null });

const mediaTypeOf = (fileName: string): string =>
  /\.glb$/i.test(fileName)
    ? 'model/gltf-binary'
    : /\.zip$/i.test(fileName)
      ? 'application/zip'
      : /\.tiff?$/i.test(fileName)
        ? 'image/tiff'
        : 'application/octet-stream';

async function store(result: ImportResult, signal: AbortSignal): Promise<NonNullable<BodyOf<'model'>['packed']>> {
  const file = await uploadFile(new Blob([result.packed]), 'application/octet-stream', { signal });
  return { reader: READER, file };
}

/** Names of a model's parts as the picture has them; null where it does not show the model. */
async function partNamesOf(id: string): Promise<string[] | null> {
  const names = (await listParts())?.filter(({ model }) => model === id).map(({ name }) => name) ?? [];
  return names.length > 0 ? names : null;
}

/**
 * Brings a model file into a project: read, stored, placed by a guess. Only when all of it is stored does the project
 * get its model, so a failure or a cancel changes nothing.
 * @param replaced the model that this is a newer file of: its place, name and changed parts stay, and with it every
 *   view and move
 */
export async function importModel(projectId: string, file: File, replaced?: Row<'model'>): Promise<void> {
  const controller = new AbortController();
  const { signal } = controller;
  const tell = (step: Step, fraction: number) => {
    if (signal.aborted) return;
    const [from, to] = SHARE[step];
    useImport.setState({
      running: {
        projectId,
        fileName: file.name,
        step,
        fraction: from + (to - from) * fraction,
        cancel: () => controller.abort(new DOMException('Stopped', 'AbortError')),
      },
      failure: null,
    });
  };
  tell('read', 0);
  const ended = workUnderWay(`${file.name} is being brought in`);
  try {
    const result = await readFile(await file.arrayBuffer(), file.name, signal, (part) => tell('read', part));
    tell('store', 0);
    const [source, packed] = await Promise.all([
      uploadFile(file, mediaTypeOf(file.name), { signal, onProgress: (part) => tell('store', part) }),
      store(result, signal),
    ]);
    const read = {
      fileName: file.name.slice(-255),
      source,
      packed,
      declares: result.declares,
      bounds: result.bounds,
      guess: result.guess,
      triangles: result.triangles,
      movements: result.movements,
      notes: notesOf(result),
    };
    const namesBefore = replaced ? await partNamesOf(replaced.id) : null;
    let modelId: string;
    if (replaced) {
      modelId = replaced.id;
      editBody('model', replaced, `Replace ${replaced.name}`, (body) => ({ ...body, ...read }));
      const before = { bounds: replaced.body.bounds, triangles: replaced.body.triangles, names: namesBefore };
      const changes = changesOfFile(before, { ...result, names: result.partNames }, replaced.body.placement);
      useImport.setState({ changes: { projectId, modelId, changes } });
      const gone = [
        ...Object.keys(replaced.body.parts).filter((name) => !result.partNames.includes(name)),
        ...Object.keys(replaced.body.materials).filter((name) => !result.materialNames.includes(name)),
      ];
      if (gone.length > 0) useImport.setState({ lost: { projectId, modelId, names: gone } });
    } else {
      const others = currentModels(projectId).map(({ body }) => body);
      const placement = lineUp(result.bounds, result.declares, placementFor(result.guess.candidates[0]!), others);
      const name =
        file.name
          .replace(/\.[a-z0-9]{2,4}$/i, '')
          .trim()
          .slice(0, 120) || 'Model';
      modelId = makeRow('model', projectId, `Bring in ${name}`, {
        name,
        order: Date.now(),
        body: { ...read, placement, settled: false, hidden: false, parts: {}, materials: {} },
      });
    }
    useImport.setState({
      running: null,
      failure: null,
      cameras: result.cameras.length > 0 ? { projectId, modelId, cameras: result.cameras } : null,
    });
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    useImport.setState({ running: null, failure: signal.aborted ? null : { projectId, message } });
  } finally {
    ended();
  }
}

/** Brings in several models, one after the other: one that cannot be read stops none of the others. */
export async function importModels(projectId: string, files: readonly File[]): Promise<void> {
  const failures: string[] = [];
  for (const file of files) {
    await importModel(projectId, file);
    const { failure } = useImport.getState();
    if (failure?.projectId === projectId) failures.push(failure.message);
  }
  if (failures.length > 0) useImport.setState({ failure: { projectId, message: failures.join(' ') } });
}

const notesOf = ({ notes }: ImportResult): string[] => notes.map((note) => note.slice(0, 500)).slice(0, 50);

/** Models that are being read again, and those that could not be: trying at every edit would help nobody. */
const reading = new Set<string>();

/** Reads a kept source again where the reader has changed since. */
export async function readAgain(row: Row<'model'>): Promise<void> {
  if (reading.has(row.id)) return;
  reading.add(row.id);
  try {
    const { signal } = new AbortController();
    const bytes = await fetchFile(row.body.source.sha256);
    const result = await readFile(bytes, row.body.fileName, signal, () => {});
    const { declares, bounds, guess, triangles, movements } = result;
    const packed = await store(result, signal);
    const read = { packed, declares, bounds, guess, triangles, movements, notes: notesOf(result) };
    const now = currentRow(row.projectId, 'model', row.id);
    // A newer file has come meanwhile: what was read of the old one is of no use.
    if (!now || now.deleted || now.body.source.sha256 !== row.body.source.sha256) return;
    // A reader that finds other coordinates than the one before moves nothing: the model stays where people put it.
    const { moved, grew } = changesOfFile(now.body, result, now.body.placement);
    const shifted = grew.every((value) => Math.abs(value) < 0.01) && moved.some((value) => Math.abs(value) > 0.001);
    const placement = shifted ? asBefore({ moved }, now.body.placement) : now.body.placement;
    saveForMachine(
      row.projectId,
      `Read ${row.name} again`,
      changing('model', now, { body: { ...now.body, ...read, placement } }),
      givenOf('model', now, ['source']),
    );
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    useImport.setState({ failure: { projectId: row.projectId, message } });
    return;
  }
  reading.delete(row.id);
}
