import { Injectable, SetMetadata, type CanActivate, type ExecutionContext } from '@nestjs/common';
import type { Problem } from '@eskovan/core/document';
import { Reflector } from '@nestjs/core';
import type { NextFunction, Request, Response } from 'express';
import { doorOf } from './door.ts';
import { notFound, ProblemException, sendProblem } from './problem.ts';

const OPEN = 'open-to-clients';

/** Marks a route that a client's link may reach, by the review's own port only. All others are the studio's. */
export const OpenToClients = () => SetMetadata(OPEN, true);

const LOOPBACK = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1']);
const LOCAL_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);
const READ_ONLY = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Until there are accounts the studio is whoever sits at this machine: connections over loopback to the studio's own
 * port, addressed to a local name (so that no foreign name can be pointed here), not passed on by a proxy, and never
 * written by another site. Proxies are pointed at the review's port, which answers nothing of the studio, whatever
 * their headers say.
 */
@Injectable()
export class StudioGuard implements CanActivate {
  constructor(private readonly reflector: Reflector) {}

  canActivate(context: ExecutionContext): boolean {
    const request = context.switchToHttp().getRequest<Request>();
    const open = this.reflector.getAllAndOverride<boolean>(OPEN, [context.getHandler(), context.getClass()]) ?? false;
    if (open !== (doorOf(request) === 'review')) throw notFound('page');
    if (!open) requireStudio(request);
    return true;
  }
}

/** @throws ProblemException 403 for whoever does not sit at this machine */
function requireStudio(request: Request): void {
  const host = (request.headers.host ?? '').replace(/:\d+$/, '');
  const local =
    LOOPBACK.has(request.socket.remoteAddress ?? '') &&
    LOCAL_NAMES.has(host) &&
    request.headers['x-forwarded-for'] === undefined &&
    request.headers.forwarded === undefined;
  if (!local)
    throw new ProblemException(403, { code: 'forbidden', message: 'The studio can be used on its own machine only.' });
  const origin = request.headers.origin;
  if (!READ_ONLY.has(request.method) && origin !== undefined && !isLocalOrigin(origin))
    throw new ProblemException(403, { code: 'forbidden', message: 'Another site may not write here.' });
}

/** The same for what Nest's guards do not see: pages, and the description of the API. */
export const studioOnly = middleware((request) => {
  if (doorOf(request) !== 'studio') throw notFound('page');
  requireStudio(request);
});

/** What only a client's link leads to. */
export const reviewOnly = middleware((request) => {
  if (doorOf(request) !== 'review') throw notFound('page');
});

function middleware(check: (request: Request) => void) {
  return (request: Request, response: Response, next: NextFunction): void => {
    try {
      check(request);
    } catch (error) {
      if (!(error instanceof ProblemException)) throw error;
      sendProblem(response, error.getStatus(), error.getResponse() as Problem);
      return;
    }
    next();
  };
}

function isLocalOrigin(origin: string): boolean {
  try {
    return LOCAL_NAMES.has(new URL(origin).hostname);
  } catch {
    return false;
  }
}
