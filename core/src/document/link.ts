import { z } from 'zod';
import { idSchema } from './primitives.ts';

/** What one link can hold. */
export const MOST_TAKES_OF_LINK = 100;
export const MOST_VIEWS_OF_LINK = 200;

export const linkBodySchema = z.object({
  /** 256 random bits, base64url: whoever has it can open the page, nobody can guess it. */
  token: z.string().regex(/^[A-Za-z0-9_-]{43}$/, 'a link token has 43 base64url characters'),
  takeIds: z.array(idSchema).max(MOST_TAKES_OF_LINK),
  viewIds: z.array(idSchema).max(MOST_VIEWS_OF_LINK),
  /** After this instant the page says that the link has ended; null: does not end. */
  expires: z.iso.datetime().nullable().default(null),
});
export type LinkBody = z.infer<typeof linkBodySchema>;

/** What the client's page gets: names and pictures, nothing else of the studio. */
export const reviewPageSchema = z.object({
  project: z.string(),
  round: z.string(),
  takes: z.array(
    z.object({
      id: idSchema,
      name: z.string(),
      kind: z.enum(['still', 'video']),
      width: z.int(),
      height: z.int(),
      seconds: z.number().nullable(),
      file: z.string(),
      mediaType: z.string(),
      poster: z.string().nullable(),
    }),
  ),
  views: z.array(z.object({ id: idSchema, name: z.string(), picture: z.string().nullable() })),
});
export type ReviewPage = z.infer<typeof reviewPageSchema>;
