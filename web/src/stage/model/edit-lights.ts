import { type BodyOf, type ProjectDocument, type Row } from '@eskovan/core/document';
import { startingLight, type LightSetting, type LightStart } from '@eskovan/core/site';
import { workbench } from '../../desk/workbench.ts';
import { editBody, makeRow, removeRow } from '../../data/edit-row.ts';
import { liveRows } from '../../data/changes.ts';
import { orderAfter } from '../../data/order.ts';

/** A name that no light of the project has yet. */
function freeName(wanted: string, lights: readonly Row<'light'>[]): string {
  const taken = new Set(lights.map(({ name }) => name));
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? wanted : `${wanted.slice(0, 112)} ${n}`;
    if (!taken.has(name)) return name;
  }
}

function keepLight({ project, light }: ProjectDocument, name: string, setting: LightSetting): void {
  const lights = liveRows(light);
  const free = freeName(name, lights);
  const body: BodyOf<'light'> = { ...setting, picture: null };
  const id = makeRow('light', project.id, `New light ${free}`, { name: free, order: orderAfter(lights), body });
  workbench.set({ light: id });
}

/** A new named light, on the project's day. It is looked at from now on. */
export const addLight = (document: ProjectDocument, start: LightStart): void =>
  keepLight(document, start, startingLight(start, document.project.body.sun));

/** The light at hand under a name of its own. */
export const duplicateLight = (document: ProjectDocument, name: string, setting: LightSetting): void =>
  keepLight(document, `${name} copy`, setting);

/** Views and moves that were seen in it are seen in the project's own again. */
export function removeLight(row: Row<'light'>): void {
  removeRow('light', row);
  workbench.set({ light: null });
}

/** Changes a named light, or, without one, the project's own. */
export function editLight(
  { project }: ProjectDocument,
  row: Row<'light'> | null,
  label: string,
  change: Partial<LightSetting>,
): void {
  if (row) {
    editBody('light', row, `${label} of ${row.name}`, (body) => ({ ...body, ...change }));
    return;
  }
  const { instant, ...rest } = change;
  editBody('project', project, label, (body) => ({
    ...body,
    ...rest,
    ...(instant === undefined ? {} : { sun: { ...body.sun, instant } }),
  }));
}
