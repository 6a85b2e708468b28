import { countTriangles, listMovements, ownBounds, packModel, readModel, type ReadModel } from '@eskovan/core/format';
import type { BodyOf, Bounds, ModelGuess } from '@eskovan/core/document';
import { guessOf, materialName } from '@eskovan/core/site';
import * as Comlink from 'comlink';
import dracoUrl from 'draco3dgltf/draco_decoder_gltf.wasm?url';
import webIfcUrl from 'web-ifc/web-ifc.wasm?url';

const DECODERS: Record<string, string> = { 'web-ifc.wasm': webIfcUrl, 'draco_decoder_gltf.wasm': dracoUrl };

export interface ImportResult {
  packed: Uint8Array<ArrayBuffer>;
  bounds: Bounds;
  triangles: number;
  declares: ReadModel['declares'];
  guess: ModelGuess;
  notes: string[];
  cameras: ReadModel['cameras'];
  movements: BodyOf<'model'>['movements'];
  partNames: string[];
  materialNames: string[];
}

const api = {
  /** Reads a model file of any known format. @throws Error with words for people */
  async importModel(
    bytes: ArrayBuffer,
    fileName: string,
    onProgress: (fraction: number) => void,
  ): Promise<ImportResult> {
    const model = await readModel(new Uint8Array(bytes), fileName, {
      locate: (file) => DECODERS[file] ?? file,
      onProgress,
    });
    const { declares, notes, cameras } = model;
    const packed = packModel(model);
    const result: ImportResult = {
      packed,
      bounds: ownBounds(model)!,
      triangles: countTriangles(model),
      declares,
      guess: guessOf(model, fileName),
      notes,
      cameras,
      movements: listMovements(model),
      partNames: [...new Set(model.parts.map(({ name }) => name))],
      materialNames: [...new Set(model.materials.map(materialName))],
    };
    return Comlink.transfer(result, [packed.buffer]);
  },
};

export type ImportWorker = typeof api;
Comlink.expose(api);
