import { resolve } from 'node:path';
import { z } from 'zod';

const environmentSchema = z.object({
  DATABASE_URL: z.string().min(1, 'set DATABASE_URL, or start with `npm start`, which makes a database of its own'),
  /** Where files are kept. */
  ESKOVAN_DATA: z.string().min(1),
  PORT: z.coerce.number().int().min(0).max(65_535).default(5170),
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
  webFolder: string | null;
  largestFile: number;
}

/** Read once, at the door. @throws ZodError naming the variable that is wrong */
export function readConfig(environment: NodeJS.ProcessEnv): Config {
  const values = environmentSchema.parse(environment);
  return {
    databaseUrl: values.DATABASE_URL,
    dataFolder: resolve(values.ESKOVAN_DATA),
    port: values.PORT,
    webFolder: values.ESKOVAN_WEB ? resolve(values.ESKOVAN_WEB) : null,
    largestFile: values.ESKOVAN_LARGEST_FILE,
  };
}

export const CONFIG = Symbol('config');
