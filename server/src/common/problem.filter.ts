import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import { problemSchema, type Problem } from '@eskovan/core/document';
import type { Response } from 'express';
import { ConnectionError, DatabaseError } from 'sequelize';

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
    // An error may be over in a moment: nobody keeps it.
    response.setHeader('Cache-Control', 'no-store');
    response.removeHeader('Content-Disposition');
    response.status(status).json(problem);
  }

  private describe(error: unknown): [number, Problem] {
    if (error instanceof HttpException) {
      const own = problemSchema.safeParse(error.getResponse());
      const status = error.getStatus();
      return [
        status,
        own.success
          ? (error.getResponse() as Problem)
          : { code: codeOf(status), message: WORDS[status] ?? 'This cannot be done.' },
      ];
    }
    const { status, type, code } = (error ?? {}) as { status?: unknown; type?: unknown; code?: unknown };
    if (code === 'ENOSPC' || code === 'EDQUOT' || sqlState(error)?.startsWith('53100'))
      return [
        507,
        { code: 'disk-full', message: 'The disk of the server is full. Nothing was changed; make room and try again.' },
      ];
    if (error instanceof ConnectionError || sqlState(error)?.startsWith('08') || sqlState(error)?.startsWith('57P'))
      return [
        503,
        { code: 'no-database', message: 'The database does not answer just now. Nothing was changed; try again.' },
      ];
    // A number or text that the database cannot hold, and that no schema caught.
    if (sqlState(error)?.startsWith('22'))
      return [422, { code: 'invalid', message: 'A value in this request cannot be kept. Nothing was changed.' }];
    // Body parsers speak before Nest does.
    if (type === 'entity.too.large') return [413, { code: 'too-large', message: 'The request is too large.' }];
    if (typeof status === 'number' && status >= 400 && status < 500)
      return [status, { code: codeOf(status), message: WORDS[status] ?? 'This cannot be done.' }];
    if (error instanceof URIError) return [400, { code: 'bad-request', message: 'The address cannot be read.' }];
    this.logger.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
    return [500, { code: 'internal', message: 'Something went wrong on the server. Nothing was changed; try again.' }];
  }
}

const sqlState = (error: unknown): string | undefined =>
  error instanceof DatabaseError ? (error.original as { code?: string }).code : undefined;

const CODES: Record<number, string> = {
  400: 'bad-request',
  403: 'forbidden',
  404: 'not-found',
  405: 'no-such-way',
  408: 'silent',
  413: 'too-large',
  415: 'wrong-type',
  416: 'no-such-range',
  429: 'too-many',
};
const codeOf = (status: number): string => CODES[status] ?? `http-${status}`;

/** Words of our own: those of the libraries name routes and insides. */
const WORDS: Record<number, string> = {
  400: 'The request cannot be read; it is not valid JSON.',
  404: 'There is nothing at this address.',
  408: 'The request did not come whole in time.',
  413: 'The request is too large.',
  415: 'The request comes in a form that is not read here.',
  416: 'The file has no such range.',
  429: 'That was too often. Wait a minute.',
};
