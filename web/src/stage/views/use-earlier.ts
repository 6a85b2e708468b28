import { beforeEntrySchema, bodySchemas, earlierRows, type Facet, type Row } from '@eskovan/core/document';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { z } from 'zod';
import { request } from '../../data/api.ts';

/** What makes a view another picture; its own small picture goes with them. */
const FACETS: readonly Facet[] = [
  ['body', 'pose'],
  ['body', 'lens'],
  ['body', 'frame'],
  ['body', 'light'],
  ['body', 'thumbnail'],
];

/** What a view was before each change of its picture, the newest first, as the log of edits has it. */
export function useEarlier(row: Row<'view'>) {
  const { projectId, id, revision } = row;
  const { data, error } = useQuery({
    queryKey: ['earlier', projectId, id, revision],
    queryFn: ({ signal }) =>
      request(
        'GET',
        `/api/projects/${projectId}/edits/before?row=${id}&facets=${encodeURIComponent(JSON.stringify(FACETS))}`,
        { schema: z.array(beforeEntrySchema), signal },
      ),
  });
  const earlier = useMemo(
    () =>
      data &&
      earlierRows(row, data)
        // What an older program has written may say too little by now.
        .filter((one) => bodySchemas.view.safeParse(one.row.body).success),
    [row, data],
  );
  return { earlier, error };
}
