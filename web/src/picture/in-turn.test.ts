import { expect, test } from '@jest/globals';
import { turns } from './in-turn.ts';

test('one after the other, in order; one that fails stops none, and whoever asked for it is told', async () => {
  const inTurn = turns();
  const begun: string[] = [];
  const ends: Record<string, (fails?: Error) => void> = {};
  const work = (name: string) =>
    inTurn(() => {
      begun.push(name);
      return new Promise<string>(
        (resolve, reject) => (ends[name] = (fails) => (fails ? reject(fails) : resolve(name))),
      );
    });
  const [first, second, third] = ['first', 'second', 'third'].map(work);
  const told = expect(second).rejects.toThrow('no');
  await Promise.resolve();
  expect(begun).toEqual(['first']);
  ends['first']!();
  expect(await first).toBe('first');
  await Promise.resolve();
  expect(begun).toEqual(['first', 'second']);
  ends['second']!(new Error('no'));
  await told;
  await new Promise((resolve) => setTimeout(resolve));
  expect(begun).toEqual(['first', 'second', 'third']);
  ends['third']!();
  expect(await third).toBe('third');
});
