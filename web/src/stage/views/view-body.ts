import type { Frame, Row, StillCamera, ViewBody } from '@eskovan/core/document';
import type { GroupsOf } from '../shared/shelf-groups.ts';

/** A view has at most so many. */
const MOST = 20;
const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** A view with one more tag; one that it has stays as it is. */
export function withTag(body: ViewBody, tag: string): ViewBody {
  const { tags = [] } = body;
  return tags.length >= MOST || tags.some((one) => same(one, tag)) ? body : { ...body, tags: [...tags, tag] };
}

export function withoutTag(body: ViewBody, tag: string): ViewBody {
  const { tags: before = [], ...others } = body;
  const tags = before.filter((one) => !same(one, tag));
  return tags.length === 0 ? others : { ...others, tags };
}

/** A view with a frame of its own, or without one. Its picture is drawn anew. */
export const withFrame = ({ frame: _, ...body }: ViewBody, frame: Frame | undefined): ViewBody => ({
  ...body,
  ...(frame && { frame }),
  thumbnail: null,
});

/** Views belong to groups by name. */
export const VIEW_GROUPS: GroupsOf<'view'> = {
  of: ({ body }) => body.group,
  with: ({ group: _, ...body }, group) => (group === undefined ? body : { ...body, group }),
};

/** A view as it was or could be, to be compared with what it is: `suffix` tells its id apart, a camera is drawn anew. */
export const stateOf = (row: Row<'view'>, suffix: string, name: string, camera?: StillCamera): Row<'view'> => ({
  ...row,
  id: `${row.id} ${suffix}`,
  name,
  body: camera ? { ...row.body, ...camera, thumbnail: null } : row.body,
});

/** Is an id that of a view, or of one of its other states? */
export const isOf = (row: Row<'view'>, id: string): boolean => id.startsWith(row.id);
