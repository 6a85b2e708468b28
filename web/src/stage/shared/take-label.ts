import type { Row } from '@eskovan/core/document';

/** A take by its number; the server gives it. */
export const takeLabel = (take: Row<'take'>) => (take.body.number === 0 ? 'Take …' : `Take ${take.body.number}`);
