import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import { problemSchema, type Problem } from '@eskovan/core/document';
import type { Response } from 'express';

/** Every error leaves as a Problem; what nobody expected is logged whole and told without its insides. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.destroy();
      return;
    }
    const [status, problem] = this.describe(error);
    response.status(status).json(problem);
  }

  private describe(error: unknown): [number, Problem] {
    if (error instanceof HttpException) {
      const own = problemSchema.safeParse(error.getResponse());
      return [error.getStatus(), own.success ? own.data : { code: codeOf(error.getStatus()), message: error.message }];
    }
    const { status, type } = (error ?? {}) as { status?: unknown; type?: unknown };
    // Body parsers speak before Nest does.
    if (type === 'entity.too.large') return [413, { code: 'too-large', message: 'The request is too large.' }];
    if (typeof status === 'number' && status >= 400 && status < 500)
      return [status, { code: codeOf(status), message: 'The request cannot be read; it is not valid JSON.' }];
    this.logger.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
    return [500, { code: 'internal', message: 'Something went wrong on the server. Nothing was changed; try again.' }];
  }
}

function codeOf(status: number): string {
  return (
    { 400: 'bad-request', 403: 'forbidden', 404: 'not-found', 413: 'too-large', 429: 'too-many' }[status] ??
    `http-${status}`
  );
}
