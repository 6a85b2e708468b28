import { Injectable, Logger, type CallHandler, type ExecutionContext, type NestInterceptor } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { Observable } from 'rxjs';

/** One structured line a request. */
@Injectable()
export class LoggingInterceptor implements NestInterceptor {
  private readonly logger = new Logger('request');

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const request = context.switchToHttp().getRequest<Request>();
    const response = context.switchToHttp().getResponse<Response>();
    const started = performance.now();
    response.once('close', () => {
      // Tokens open pages: they do not belong into logs.
      const path = request.path.replace(/(\/review\/)[^/]+/, '$1…');
      this.logger.log({
        method: request.method,
        path,
        status: response.statusCode,
        ms: Math.round(performance.now() - started),
      });
    });
    return next.handle();
  }
}
