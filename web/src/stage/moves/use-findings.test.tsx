import { FIRST_LIMITS, FIRST_WALKER, type MoveBody } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { afterEach, expect, jest, test } from '@jest/globals';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';

/** Bodies that the worker was asked about, in their order. */
const asked: string[] = [];
/** How often it was told what moves are checked in. */
let stood = 0;
const finding = (of: string) => ({ rule: 'wall', of });
jest.unstable_mockModule('./ground-worker.ts', () => ({
  startGround: () => ({
    remote: {
      standIn: () => {
        stood += 1;
        return Promise.resolve();
      },
      check: (body: { name: string }) => {
        asked.push(body.name);
        return Promise.resolve([finding(body.name)]);
      },
      cover: () => Promise.resolve(null),
    },
    stopped: new Promise(() => {}),
    stop: () => {},
  }),
}));
const project = { body: { walker: FIRST_WALKER, limits: FIRST_LIMITS, frame: { width: 16, height: 9 } } };
jest.unstable_mockModule('../../data/use-project.ts', () => ({ useProject: () => ({ project }) }));
const moving = { parts: [], moving: [] };
/** Were the parts of the site asked for, each time? */
const wanted: boolean[] = [];
jest.unstable_mockModule('../../site/use-parts.ts', () => ({
  useMoving: (parts: boolean) => {
    wanted.push(parts);
    return moving;
  },
}));
const site = { floor: { sha256: 'a'.repeat(64) } };
const data = { footing: {}, survey: { storeys: [] } };
let actions: readonly { kind: string }[] = [];
jest.unstable_mockModule('../../site/use-site.ts', () => ({
  useActions: () => actions,
  useSite: () => site,
  useSiteData: () => ({ data }),
}));
const { useFindings } = await import('./use-findings.ts');

const bodyOf = (name: string) => ({ kind: 'walk', name, gaze: { kind: 'ahead', distance: 2 } }) as unknown as MoveBody;
const move = {} as CompiledMove;
afterEach(() => {
  cleanup();
  asked.length = 0;
  stood = 0;
  wanted.length = 0;
  actions = [];
});

test('while a hand drags nothing is checked; when it rests the newest is, once, and till then it is not of now', async () => {
  const bodies = ['a', 'b', 'c', 'd'].map(bodyOf);
  const { result, rerender } = renderHook(({ body, stirring }) => useFindings(body, move, stirring), {
    initialProps: { body: bodies[0]!, stirring: bodies[0] },
  });
  await waitFor(() => expect(result.current).toMatchObject({ current: true, findings: [finding('a')] }));
  // The hand goes on at once, what is checked follows it more calmly.
  for (const stirring of bodies.slice(1)) act(() => rerender({ body: bodies[0]!, stirring }));
  act(() => rerender({ body: bodies[3]!, stirring: bodies[3] }));
  expect(result.current).toMatchObject({ current: false, findings: [finding('a')] });
  expect(asked).toEqual(['a']);
  await waitFor(() => expect(result.current).toMatchObject({ current: true, findings: [finding('d')] }));
  expect(asked).toEqual(['a', 'd']);
  // The site is the same: it is sent once.
  expect(stood).toBe(1);
});

test('parts are asked for where something moves that may be in the way by then: not for lamps that dim', async () => {
  const body = bodyOf('e');
  for (const [kinds, parts] of [
    [[], false],
    [['dim'], false],
    [['dim', 'hinge'], true],
  ] as const) {
    actions = kinds.map((kind) => ({ kind }));
    const { result } = renderHook(() => useFindings(body, move));
    await waitFor(() => expect(result.current.current).toBe(true));
    expect(wanted.at(-1)).toBe(parts);
    cleanup();
  }
});
