import { projectDocumentReader, type ProjectDocument } from '@eskovan/core/document';
import { useQuery } from '@tanstack/react-query';
import { createContext, useContext } from 'react';
import { request } from './api.ts';
import { documentPath, takeEarly } from './early-reply.ts';
import { projectKey, takeDocument } from './edits.ts';
import { projectWasRead } from './live.ts';

/**
 * Everything of one project; edits of ours that are not saved yet are already in it.
 * @param onFetched told of a document as soon as it is here, before anything is drawn of it
 */
export function useProjectDocument(projectId: string, onFetched: (document: ProjectDocument) => void = () => {}) {
  return useQuery({
    queryKey: projectKey(projectId),
    queryFn: async ({ signal }) => {
      const path = documentPath(projectId);
      const early = takeEarly(path);
      const options = { schema: projectDocumentReader, signal, ...(early ? { reply: early } : {}) };
      const document = takeDocument(await request('GET', path, options));
      projectWasRead(projectId);
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
