import type { Response } from 'express';

/** Answers with what there is, or that there is nothing yet: that is no error, and browsers need not report one. */
export function orNothing<T>(response: Response, value: T | null): T | undefined {
  if (value !== null) return value;
  response.status(204);
  return undefined;
}
