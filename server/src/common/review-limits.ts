import { ipKeyGenerator, rateLimit, type Options } from 'express-rate-limit';
import { sendProblem } from './problem.ts';

const MINUTE = 60_000;
/** Requests a minute. */
export interface ReviewLimits {
  /** From one network address. */
  perAddress: number;
  /** Of one link, however many addresses ask. */
  perLink: number;
}

/** A page with many pictures and a film that is seeked stays well below. */
export const REVIEW_LIMITS: ReviewLimits = { perAddress: 600, perLink: 3000 };

const common: Partial<Options> = {
  windowMs: MINUTE,
  standardHeaders: true,
  legacyHeaders: false,
  handler: (_request, response) =>
    sendProblem(response, 429, { code: 'too-many', message: 'That was too often. Wait a minute and try again.' }),
};

/** Guessing tokens is hopeless already; this keeps the attempts cheap for us too. */
export const reviewLimits = ({ perAddress, perLink }: ReviewLimits) => [
  rateLimit({ ...common, limit: perAddress, keyGenerator: ({ ip }) => ipKeyGenerator(ip ?? '') }),
  // Mounted below /api/review: what follows first is the token.
  rateLimit({ ...common, limit: perLink, keyGenerator: ({ path }) => path.split('/')[1] ?? '' }),
];
