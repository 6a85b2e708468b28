import type { BodyOf, Row } from '@eskovan/core/document';
import { READER, type SceneCamera } from '@eskovan/core/format';
import { guessPlacement, placementFor } from '@eskovan/core/site';
import { create } from 'zustand';
import { fetchFile, uploadFile } from '../data/api.ts';
import { changing } from '../data/changes.ts';
import { editBody, makeRow } from '../data/edit-row.ts';
import { currentRow, givenOf, saveForMachine } from '../data/edits.ts';
import { workUnderWay } from '../data/unfinished.ts';
import type { ImportResult } from '../worker/import.worker.ts';
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
}

export const useImport = create<ImportState>()(() => ({ running: null, failure: null, cameras: null, lost: null }));

export const dismissFailure = () => useImport.setState({ failure: null });
export const dismissCameras = () => useImport.setState({ cameras: null });
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
      triangles: result.triangles,
      movements: result.movements,
      notes: notesOf(result),
    };
    let modelId: string;
    if (replaced) {
      modelId = replaced.id;
      editBody('model', replaced, `Replace ${replaced.name}`, (body) => ({ ...body, ...read }));
      const gone = Object.keys(replaced.body.parts).filter((name) => !result.partNames.includes(name));
      if (gone.length > 0) useImport.setState({ lost: { projectId, modelId, names: gone } });
    } else {
      const placement = placementFor(guessPlacement(result.bounds, result.declares));
      const name =
        file.name
          .replace(/\.[a-z0-9]{2,4}$/i, '')
          .trim()
          .slice(0, 120) || 'Model';
      modelId = makeRow('model', projectId, `Bring in ${name}`, {
        name,
        order: Date.now(),
        body: { ...read, placement, hidden: false, parts: {} },
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
    const { declares, bounds, triangles, movements } = result;
    const packed = await store(result, signal);
    const read = { packed, declares, bounds, triangles, movements, notes: notesOf(result) };
    const now = currentRow(row.projectId, 'model', row.id);
    // A newer file has come meanwhile: what was read of the old one is of no use.
    if (!now || now.deleted || now.body.source.sha256 !== row.body.source.sha256) return;
    saveForMachine(
      row.projectId,
      `Read ${row.name} again`,
      changing('model', now, { body: { ...now.body, ...read } }),
      givenOf('model', now, ['source']),
    );
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    useImport.setState({ failure: { projectId: row.projectId, message } });
    return;
  }
  reading.delete(row.id);
}
