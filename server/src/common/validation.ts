import { issueWords } from '@eskovan/core/document';
import { StandardSchemaValidationPipe } from '@nestjs/common';
import { z } from 'zod';
import { ProblemException } from './problem.ts';

// Schemas that bring no words of their own: what the server refuses may be read by a person.
z.config({ localeError: issueWords });

/** Refuses what does not fit its schema and names the field. */
export const validationPipe = new StandardSchemaValidationPipe({
  exceptionFactory: (issues) => {
    const issue = issues[0];
    const field = (issue?.path ?? []).map((key) => (typeof key === 'object' ? String(key.key) : String(key))).join('.');
    return new ProblemException(422, {
      code: 'invalid',
      message: field ? `${field}: ${issue?.message}` : (issue?.message ?? 'The request does not fit.'),
      ...(field ? { field } : {}),
    });
  },
});
