import { afterEach, expect, test } from '@jest/globals';
import type { CompiledMove } from '@eskovan/core/move';
import { cleanup, renderHook, waitFor } from '@testing-library/react';
import { useCalmCut } from './use-calm-cut.ts';

/** Which moves were cut, in their order. */
const cut: string[] = [];
const moveOf = (name: string) =>
  ({
    name,
    channels: [
      {
        id: 'eye',
        at: () => 1.6,
        under: { at: () => 0 },
        get cut() {
          cut.push(name);
          return { of: name };
        },
      },
      { id: 'pace', at: () => 1 },
    ],
  }) as unknown as CompiledMove;
const seen = (move: CompiledMove | null) => {
  const { name, channels } = move as unknown as {
    name: string;
    channels: { cut?: { of: string }; at: () => number }[];
  };
  return [name, channels[0]!.cut?.of, channels[0]!.at(), channels[1]!.cut];
};
afterEach(cleanup);

test('while a hand shapes a move its section stays, and is cut once when it rests', async () => {
  const [first, ...steps] = ['a', 'b', 'c', 'd'].map(moveOf);
  const { result, rerender } = renderHook(({ move, of }) => useCalmCut(move, of), {
    initialProps: { move: first!, of: 'one' },
  });
  expect(seen(result.current)).toEqual(['a', 'a', 1.6, undefined]);
  for (const move of steps) {
    rerender({ move, of: 'one' });
    expect(seen(result.current)).toEqual([(move as unknown as { name: string }).name, 'a', 1.6, undefined]);
  }
  await waitFor(() => expect(seen(result.current)).toEqual(['d', 'd', 1.6, undefined]));
  expect(new Set(cut)).toEqual(new Set(['a', 'd']));
});

test('another move is never shown with the section of the one before', () => {
  const { result, rerender } = renderHook(({ move, of }) => useCalmCut(move, of), {
    initialProps: { move: moveOf('a'), of: 'one' },
  });
  rerender({ move: moveOf('z'), of: 'two' });
  expect(seen(result.current)).toEqual(['z', 'z', 1.6, undefined]);
});
