import { unkeepableText } from '@eskovan/core/document';
import type { NextFunction, Request, Response } from 'express';
import { sendProblem } from './problem.ts';

/** Refuses text that no database keeps, before anything is done with it. */
export function refuseUnkeepable(request: Request, response: Response, next: NextFunction): void {
  const path = unkeepableText(request.body);
  if (!path) {
    next();
    return;
  }
  const field = path.join('.');
  sendProblem(response, 422, {
    code: 'invalid',
    message: `${field || 'The request'} holds a character that cannot be kept (U+0000 or half of a pair). Take it out.`,
    ...(field ? { field } : {}),
  });
}
