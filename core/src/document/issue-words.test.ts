import { expect, test } from '@jest/globals';
import { z } from 'zod';
import { issueWords } from './index.ts';

const says = (schema: z.ZodType, value: unknown) =>
  schema.safeParse(value, { error: issueWords }).error?.issues[0]?.message;

test('what does not fit is said in plain words, wherever a schema has none of its own', () => {
  expect(says(z.string(), 2)).toBe('a number where text belongs');
  expect(says(z.array(z.string()), {})).toBe('an object where a list belongs');
  expect(says(z.int(), 1.5)).toBe('a number with a fraction where a whole number belongs');
  expect(says(z.number(), NaN)).toBe('no finite number where a number belongs');
  expect(says(z.number(), null)).toBe('nothing where a number belongs');
  expect(says(z.object({ x: z.number() }), {})).toBe('it is missing');
  expect(says(z.number().min(3), 2)).toBe('it must be at least 3');
  expect(says(z.number().gt(3), 3)).toBe('it must be more than 3');
  expect(says(z.number().max(3), 4)).toBe('it may be at most 3');
  expect(says(z.string().max(3), 'four')).toBe('it may have at most 3 characters');
  expect(says(z.array(z.number()).min(2), [1])).toBe('it must have at least 2 entries');
  expect(says(z.enum(['a', 'b']), 'c')).toBe('“c” where one of “a”, “b” belongs');
  expect(says(z.literal(2), 3)).toBe('3 where “2” belongs');
  expect(says(z.strictObject({}), { more: 1 })).toBe('it has “more”, which is not known here');
  expect(says(z.uuid(), 'x'.repeat(90))).toBe(`“${'x'.repeat(40)}” is not written as it must be here`);
  expect(says(z.union([z.string(), z.boolean()]), 2)).toBe('it does not fit here');
  expect(says(z.string('a name of text'), 2)).toBe('a name of text');
});
