import { isWithin, type MaterialLook, type PartLook, type PartPath, type Row } from '@eskovan/core/document';
import { selection, useLead } from '../../desk/selection.ts';
import { workbench, type Workbench } from '../../desk/workbench.ts';
import { editBody } from '../../data/edit-row.ts';
import { useModels } from '../../site/use-site.ts';
import type { PartInfo } from '../../worker/parts.ts';

/** The chosen model of the Model stage: the first where none is chosen. */
export function useChosenModel(): Row<'model'> | null {
  const models = useModels();
  const chosen = useLead('model');
  return models.find(({ id }) => id === chosen) ?? models[0] ?? null;
}

export function choosePart(part: PartPath | null): void {
  workbench.set({ part, material: null });
  if (part) selection.chooseRow('model', part.model);
}

export function chooseMaterial(material: Workbench['material']): void {
  workbench.set({ material, part: null, alone: null });
  if (material) selection.chooseRow('model', material.model);
}

/** Looks with a change in them; what is undefined goes back to what came with the file, and an empty look is none. */
function withLook<L extends object>(
  looks: Readonly<Record<string, L>>,
  names: readonly string[],
  change: { [K in keyof L]?: L[K] | undefined },
): Record<string, L> {
  const out = { ...looks };
  for (const name of names) {
    const look = Object.fromEntries(
      Object.entries({ ...out[name], ...change }).filter(([, value]) => value !== undefined && value !== false),
    ) as L;
    if (Object.keys(look).length > 0) out[name] = look;
    else delete out[name];
  }
  return out;
}

/** Changes a material wherever the model has it. */
export function changeMaterial(
  row: Row<'model'>,
  name: string,
  words: string,
  change: { [K in keyof MaterialLook]?: MaterialLook[K] | undefined },
): void {
  editBody('model', row, `${words} of ${name}`, (body) => ({
    ...body,
    materials: withLook(body.materials, [name], change),
  }));
}

/** Changes the look of a part, or of all parts of a group; what is undefined goes back to what came with the file. */
export function changeParts(
  row: Row<'model'>,
  names: readonly string[],
  label: string,
  change: { [K in keyof PartLook]?: PartLook[K] | undefined },
): void {
  editBody('model', row, label, (body) => ({ ...body, parts: withLook(body.parts, names, change) }));
}

/** Names of all parts that a path stands for. */
export const namesWithin = (parts: readonly PartInfo[], { model, name }: PartPath): string[] =>
  parts.filter((part) => part.model === model && isWithin(part.name, name)).map((part) => part.name);
