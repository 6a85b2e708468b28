import { HttpException } from '@nestjs/common';
import type { Problem } from '@eskovan/core/document';

/** A refusal that says what happened, where and what to do. */
export class ProblemException extends HttpException {
  constructor(status: number, problem: Problem) {
    super(problem, status);
  }
}

export const notFound = (what: string) =>
  new ProblemException(404, { code: 'not-found', message: `There is no such ${what} any more.` });

/** Somebody else wrote first: both versions go back, nothing is overwritten. */
export const conflict = (what: string, current: unknown) =>
  new ProblemException(409, {
    code: 'conflict',
    message: `This ${what} was changed elsewhere in the meantime.`,
    current,
  });
