/** An error whose words are meant for people. Other errors say what only their makers understand. */
export class SaidError extends Error {
  override name = 'SaidError';
}

/** Names of the errors with words for people: between workers and pages only the name of a class is left. */
const SAID = new Set([
  'SaidError',
  'GraphicsGone',
  'ApiError',
  'OfflineError',
  'DocumentError',
  'FormatError',
  'ClipError',
]);

/** What a person is told of an error; `otherwise` where it was not made for people. */
export const saidOf = (error: unknown, otherwise: string): string =>
  error instanceof Error && SAID.has(error.name) ? error.message : otherwise;
