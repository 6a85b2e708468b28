import type { IncomingMessage } from 'node:http';

/** Which of the server's ports a request came in by. The two never show the same things. */
export type Door = 'studio' | 'review';

const doors = new WeakMap<IncomingMessage, Door>();

export const enterBy = (request: IncomingMessage, door: Door): void => void doors.set(request, door);
/** A request that nobody marked came by the strictest door. */
export const doorOf = (request: IncomingMessage): Door => doors.get(request) ?? 'review';
