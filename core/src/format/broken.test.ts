import { expect, test } from '@jest/globals';
import { brokenFiles } from './broken-files.fixture.ts';
import { FormatError, readModel } from './index.ts';

const files = await brokenFiles();

/** Words that engines and libraries use among themselves: none of them reaches a person. */
const OF_AN_ENGINE =
  /Error:|unexpected token|unexpected end|is not a function|cannot read propert|undefined|\bnull\b|out of bounds|offset is|invalid array|wasm|unreachable|BigInt|JSON\.parse|stack|exception|invalid input|too (big|small):|expected \w+, received/i;

test('there are at least eighty ways to be broken', () => {
  expect(files.length).toBeGreaterThanOrEqual(80);
  expect(new Set(files.map(({ name }) => name)).size).toBe(files.length);
});

test.each(files.filter(({ partly }) => !partly))(
  '$what: says so, and names the file',
  async ({ name, bytes, says }) => {
    const error: unknown = await readModel(bytes, name).then(
      () => null,
      (reason: unknown) => reason,
    );
    expect(error).toBeInstanceOf(FormatError);
    expect((error as Error).message).toMatch(says);
    expect((error as Error).message).toContain(name);
    expect((error as Error).message).not.toMatch(OF_AN_ENGINE);
  },
);

test.each(files.filter(({ partly }) => partly))(
  '$what: left out, and a note says so',
  async ({ name, bytes, says }) => {
    const model = await readModel(bytes, name);
    expect(model.parts.length).toBeGreaterThan(0);
    expect(model.cameras).toEqual([]);
    expect(model.movements ?? []).toEqual([]);
    expect(model.notes.join()).toMatch(says);
  },
);
