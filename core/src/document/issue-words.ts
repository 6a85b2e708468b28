import type { z } from 'zod';

/** How the kinds of values are called where one belongs, or is found. */
const KINDS: Record<string, string> = {
  string: 'text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  tuple: 'a list',
  object: 'an object',
  record: 'an object',
  date: 'a date',
  null: 'nothing',
};

/** What counts where something is too small or too large. */
const COUNTED: Record<string, string> = { string: ' characters', array: ' entries', set: ' entries', file: ' bytes' };

/**
 * What a schema finds wrong with a value, in words for whoever wrote the file or the request: they follow the name of the
 * place, as in “asset.version: a number where text belongs”. For schemas that bring no words of their own:
 * `schema.safeParse(value, { error: issueWords })`.
 */
export function issueWords(issue: z.core.$ZodRawIssue): string {
  const input = issue.input;
  switch (issue.code) {
    case 'invalid_type':
      if (input === undefined) return 'it is missing';
      return `${found(input)} where ${KINDS[issue.expected as string] ?? 'something else'} belongs`;
    case 'too_small':
      return `it must ${bounded(issue, issue['inclusive'] === false ? 'more than' : 'at least', issue['minimum'])}`;
    case 'too_big':
      return `it may ${bounded(issue, issue['inclusive'] === false ? 'only less than' : 'at most', issue['maximum'])}`;
    case 'invalid_value': {
      const values = (issue['values'] as unknown[]).map((value) => `“${String(value)}”`);
      return `${said(input)} where ${values.length > 1 ? `one of ${values.slice(0, MOST_VALUES).join(', ')}` : values[0]} belongs`;
    }
    case 'unrecognized_keys':
      return `it has “${(issue['keys'] as string[])[0]}”, which is not known here`;
    case 'invalid_format':
      return `${said(input)} is not written as it must be here`;
    default:
      return 'it does not fit here';
  }
}

function bounded(issue: z.core.$ZodRawIssue, least: string, bound: unknown): string {
  const counted = COUNTED[issue['origin'] as string];
  return counted ? `have ${least} ${String(bound)}${counted}` : `be ${least} ${String(bound)}`;
}

/** So many of what belongs somewhere are named. */
const MOST_VALUES = 8;
/** Characters of a text that is cited. */
const CITED = 40;

const said = (input: unknown) =>
  typeof input === 'string' ? `“${input.slice(0, CITED)}”` : typeof input === 'number' ? String(input) : found(input);

function found(input: unknown): string {
  if (input === undefined) return 'nothing';
  if (typeof input === 'number' && !Number.isFinite(input)) return 'no finite number';
  if (typeof input === 'number' && !Number.isInteger(input)) return 'a number with a fraction';
  return KINDS[input === null ? 'null' : Array.isArray(input) ? 'array' : typeof input] ?? 'something else';
}
