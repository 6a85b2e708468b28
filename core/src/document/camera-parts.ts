import { z } from 'zod';
import { gazeSchema, gazeSpanSchema, MOST_SPANS } from './gaze.ts';
import { lensSchema } from './lens.ts';
import { lightChoiceSchema } from './light.ts';
import { tracksSchema } from './track.ts';

/** What every move is seen through and in. */
export const seeing = {
  lens: lensSchema,
  light: lightChoiceSchema,
  tracks: tracksSchema.optional(),
  /** It stays as it is until it is unlocked; see `isHeld`. */
  locked: z.literal(true).optional(),
};

/** What every move has besides that looks somewhere of its own accord. */
export const looking = {
  /** Where the eye looks wherever no span says otherwise. */
  gaze: gazeSchema,
  gazeSpans: z.array(gazeSpanSchema).max(MOST_SPANS).optional(),
  ...seeing,
};
