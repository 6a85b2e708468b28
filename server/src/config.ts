import { resolve } from 'node:path';
import { z } from 'zod';
import { REVIEW_LIMITS, type ReviewLimits } from './common/review-limits.ts';

const environmentSchema = z.object({
  DATABASE_URL: z.string().min(1, 'set DATABASE_URL, or start with `npm start`, which makes a database of its own'),
  /** Where files are kept. */
  ESKOVAN_DATA: z.string().min(1),
  PORT: z.coerce.number().int().min(0).max(65_535).default(5170),
  /** Where clients' pages are served: a port of their own, which shows nothing of the studio. */
  REVIEW_PORT: z.coerce.number().int().min(0).max(65_535).default(5171),
  /** The network address that the review port listens on; a proxy on this machine needs no other. */
  REVIEW_HOST: z.string().min(1).default('127.0.0.1'),
  /** How clients reach the review port, as links are written: https://review.example. */
  PUBLIC_URL: z
    .url({ protocol: /^https?$/ })
    .optional()
    .or(z.literal(''))
    .default(''),
  /** Proxies in front of the review port whose word on the sender is taken: a number, or addresses. */
  TRUST_PROXY: z.string().default(''),
  /** The built application; empty to serve the API alone. */
  ESKOVAN_WEB: z.string().default(''),
  /** Largest file taken in, bytes. */
  ESKOVAN_LARGEST_FILE: z.coerce
    .number()
    .int()
    .min(1)
    .default(2 * 1024 ** 3),
});

export interface Config {
  databaseUrl: string;
  dataFolder: string;
  port: number;
  reviewPort: number;
  reviewHost: string;
  /** Without a slash at its end; null where links name the review port itself. */
  publicUrl: string | null;
  /** As Express takes it. */
  trustProxy: number | string | false;
  webFolder: string | null;
  largestFile: number;
  reviewLimits: ReviewLimits;
}

/** Read once, at the door. @throws ZodError naming the variable that is wrong */
export function readConfig(environment: NodeJS.ProcessEnv): Config {
  const values = environmentSchema.parse(environment);
  return {
    databaseUrl: values.DATABASE_URL,
    dataFolder: resolve(values.ESKOVAN_DATA),
    port: values.PORT,
    reviewPort: values.REVIEW_PORT,
    reviewHost: values.REVIEW_HOST,
    publicUrl: values.PUBLIC_URL ? values.PUBLIC_URL.replace(/\/+$/, '') : null,
    trustProxy:
      values.TRUST_PROXY === ''
        ? false
        : /^\d+$/.test(values.TRUST_PROXY)
          ? Number(values.TRUST_PROXY)
          : values.TRUST_PROXY,
    webFolder: values.ESKOVAN_WEB ? resolve(values.ESKOVAN_WEB) : null,
    largestFile: values.ESKOVAN_LARGEST_FILE,
    reviewLimits: REVIEW_LIMITS,
  };
}

export const CONFIG = Symbol('config');
