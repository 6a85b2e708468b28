import type { PartLook, Row } from '@eskovan/core/document';
import { isWithin, type PartPath } from '@eskovan/core/site';
import { selection, useLead } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
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
  workbench.set({ part });
  if (part) selection.chooseRow('model', part.model);
}

/** Changes the look of a part, or of all parts of a group; what is undefined goes back to what came with the file. */
export function changeParts(
  row: Row<'model'>,
  names: readonly string[],
  label: string,
  change: { [K in keyof PartLook]?: PartLook[K] | undefined },
): void {
  editBody('model', row, label, (body) => {
    const parts = { ...body.parts };
    for (const name of names) {
      const look = Object.fromEntries(
        Object.entries({ ...parts[name], ...change }).filter(([, value]) => value !== undefined && value !== false),
      ) as PartLook;
      if (Object.keys(look).length > 0) parts[name] = look;
      else delete parts[name];
    }
    return { ...body, parts };
  });
}

/** Names of all parts that a path stands for. */
export const namesWithin = (parts: readonly PartInfo[], { model, name }: PartPath): string[] =>
  parts.filter((part) => part.model === model && isWithin(part.name, name)).map((part) => part.name);
