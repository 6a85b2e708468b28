import { HttpException } from '@nestjs/common';
import type { Kind, Problem } from '@eskovan/core/document';
import type { Response } from 'express';

/** A refusal that says what happened, where and what to do. */
export class ProblemException extends HttpException {
  constructor(status: number, problem: Problem) {
    super(problem, status);
  }
}

/** Answers where Nest's filter does not reach. */
export function sendProblem(response: Response, status: number, problem: Problem): void {
  response.setHeader('Cache-Control', 'no-store');
  response.status(status).json(problem);
}

export const notFound = (what: string) =>
  new ProblemException(404, { code: 'not-found', message: `There is no such ${what} any more.` });

/** Something is written to that was deleted: it can be brought back first. */
export const gone = (kind: Kind, id: string) =>
  new ProblemException(410, {
    code: 'gone',
    message: `This ${kind} was deleted. Bring it back to change it.`,
    clashes: [{ kind, id, facet: null, reason: 'deleted', current: undefined, since: null }],
  });
