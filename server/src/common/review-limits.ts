import { ipKeyGenerator, rateLimit, type Options } from 'express-rate-limit';
import { sendProblem } from './problem.ts';

const MINUTE = 60_000;
/** A page with many pictures and a film that is seeked stays well below. */
const PER_ADDRESS = 600;
/** However many addresses one link is asked from. */
const PER_LINK = 3000;

const common: Partial<Options> = {
  windowMs: MINUTE,
  standardHeaders: true,
  legacyHeaders: false,
  handler: (_request, response) =>
    sendProblem(response, 429, { code: 'too-many', message: 'That was too often. Wait a minute and try again.' }),
};

/** Guessing tokens is hopeless already; this keeps the attempts cheap for us too. */
export const reviewLimits = () => [
  rateLimit({ ...common, limit: PER_ADDRESS, keyGenerator: ({ ip }) => ipKeyGenerator(ip ?? '') }),
  // Mounted below /api/review: what follows first is the token.
  rateLimit({ ...common, limit: PER_LINK, keyGenerator: ({ path }) => path.split('/')[1] ?? '' }),
];
