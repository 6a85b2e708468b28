import { kindSchema, projectDocumentSchema, type ProjectDocument } from '@eskovan/core/document';
import { useQuery } from '@tanstack/react-query';
import { createContext, useContext, useEffect } from 'react';
import { z } from 'zod';
import { request, safeJson } from './api.ts';
import { documentPath, takeEarly } from './early-reply.ts';
import { confirmedWrites, mergePending, projectKey, queryClient } from './edits.ts';
import { findRow } from './row-change.ts';

/** Answers that a write of ours may overtake in a row before the last one is taken as it is. */
const MOST_TRIES = 4;

/** The document as the server has it, no older than the writes that it has confirmed to this page. */
async function fetchDocument(projectId: string, signal: AbortSignal): Promise<ProjectDocument> {
  for (let tries = 1; ; tries += 1) {
    const before = confirmedWrites();
    const path = documentPath(projectId);
    // What was asked for before this page had written anything.
    const early = before === 0 ? takeEarly(path) : null;
    const options = { schema: projectDocumentSchema, signal, ...(early ? { reply: early } : {}) };
    const document = (await request('GET', path, options)) as ProjectDocument;
    // A write that was confirmed meanwhile may be missing in this answer: showing it would take that write back.
    if (confirmedWrites() === before || tries === MOST_TRIES) return document;
  }
}

/**
 * Everything of one project; edits of ours that are not saved yet are already in it.
 * @param onFetched told of a document as soon as it is here, before anything is drawn of it
 */
export function useProjectDocument(projectId: string, onFetched: (document: ProjectDocument) => void = () => {}) {
  return useQuery({
    queryKey: projectKey(projectId),
    queryFn: async ({ signal }) => {
      const document = mergePending(await fetchDocument(projectId, signal));
      onFetched(document);
      return document;
    },
  });
}

const ProjectContext = createContext<ProjectDocument | null>(null);
export const ProjectProvider = ProjectContext.Provider;

/** The project that this screen belongs to. */
export function useProject(): ProjectDocument {
  const document = useContext(ProjectContext);
  if (!document) throw new Error('useProject is for screens inside a project');
  return document;
}

const rowChangedSchema = z.object({ kind: kindSchema, id: z.string(), revision: z.number() });

function isKnown(projectId: string, change: z.infer<typeof rowChangedSchema>): boolean {
  const document = queryClient.getQueryData<ProjectDocument>(projectKey(projectId));
  const row = document && findRow(document, change.kind, change.id);
  return row !== undefined && row.revision >= change.revision;
}

/** Looks again when somebody else has changed something. */
export function useLiveUpdates(projectId: string): void {
  useEffect(() => {
    const source = new EventSource(`/api/projects/${projectId}/events`);
    let timer: ReturnType<typeof setTimeout> | undefined;
    source.onmessage = ({ data }) => {
      const change = rowChangedSchema.safeParse(safeJson(String(data)));
      // Our own edits come back here too: the page has them already.
      if (change.success && isKnown(projectId, change.data)) return;
      clearTimeout(timer);
      timer = setTimeout(() => void queryClient.invalidateQueries({ queryKey: projectKey(projectId) }), 400);
    };
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [projectId]);
}
