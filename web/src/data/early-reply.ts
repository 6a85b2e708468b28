export const documentPath = (projectId: string) => `/api/projects/${projectId}/document`;

let early: { projectId: string; path: string; reply: Promise<Response> } | null = null;

/** Asks for the document of the project that the page opens with, while the page still reads its own code. */
export function askEarly(projectId: string): void {
  const path = documentPath(projectId);
  early = { projectId, path, reply: fetch(path) };
  // Its failure is told where it is awaited.
  early.reply.catch(() => {});
}

/** The project that was asked for and nobody has taken yet; null where there is none. */
export const askedEarly = (): string | null => early?.projectId ?? null;

/** The early answer, once; null where there is none. */
export function takeEarly(path: string): Promise<Response> | null {
  const reply = early?.path === path ? early.reply : null;
  early = null;
  return reply;
}
