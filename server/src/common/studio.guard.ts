import { Injectable, SetMetadata, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { ProblemException } from './problem.ts';

const OPEN = 'open-to-clients';

/** Marks a route that a client's link may reach. Everything without the mark is the studio's own. */
export const OpenToClients = () => SetMetadata(OPEN, true);

const LOOPBACK = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1']);
const LOCAL_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);
const READ_ONLY = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Until there are accounts the studio is whoever sits at this machine: requests over loopback, addressed to a local
 * name (so that no foreign name can be pointed here), not passed on by a proxy, and never written by another site.
 */
@Injectable()
export class StudioGuard implements CanActivate {
  constructor(private readonly reflector: Reflector) {}

  canActivate(context: ExecutionContext): boolean {
    if (this.reflector.getAllAndOverride<boolean>(OPEN, [context.getHandler(), context.getClass()])) return true;
    const request = context.switchToHttp().getRequest<Request>();
    const host = (request.headers.host ?? '').replace(/:\d+$/, '');
    const local =
      LOOPBACK.has(request.socket.remoteAddress ?? '') &&
      LOCAL_NAMES.has(host) &&
      request.headers['x-forwarded-for'] === undefined &&
      request.headers.forwarded === undefined;
    if (!local)
      throw new ProblemException(403, {
        code: 'forbidden',
        message: 'The studio can be used on its own machine only.',
      });
    const origin = request.headers.origin;
    if (!READ_ONLY.has(request.method) && origin !== undefined && !isLocalOrigin(origin))
      throw new ProblemException(403, { code: 'forbidden', message: 'Another site may not write here.' });
    return true;
  }
}

function isLocalOrigin(origin: string): boolean {
  try {
    return LOCAL_NAMES.has(new URL(origin).hostname);
  } catch {
    return false;
  }
}
