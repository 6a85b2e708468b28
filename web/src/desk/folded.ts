import { LONGEST_GROUP_NAME } from '@eskovan/core/document';
import { z } from 'zod';
import { rememberedList } from './remembered.ts';

/** So many are remembered for a project. */
const MOST = 100;
const remembered = rememberedList('folded', z.string().max(LONGEST_GROUP_NAME), MOST);

/** Groups whose rows are put away in this browser. */
export const useFolded = remembered.use;
export const openFolded = remembered.open;

export const fold = (projectId: string, group: string, folded: boolean): void =>
  remembered.change(projectId, (list) => [...(folded ? [group] : []), ...list.filter((one) => one !== group)]);
