export const documentPath = (projectId: string) => `/api/projects/${projectId}/document`;

let early: { path: string; reply: Promise<Response> } | null = null;

/** Asks for the document of the project that the page opens with, while the page still reads its own code. */
export function askEarly(projectId: string): void {
  const path = documentPath(projectId);
  early = { path, reply: fetch(path) };
  // Its failure is told where it is awaited.
  early.reply.catch(() => {});
}

/** The early answer, once; null where there is none. */
export function takeEarly(path: string): Promise<Response> | null {
  const reply = early?.path === path ? early.reply : null;
  early = null;
  return reply;
}
