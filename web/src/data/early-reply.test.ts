import { afterEach, expect, jest, test } from '@jest/globals';
import { askEarly, documentPath, takeEarly } from './early-reply.ts';

const fetched = jest.fn<(path: string) => Promise<Response>>();
globalThis.fetch = fetched as unknown as typeof fetch;
afterEach(() => {
  fetched.mockReset();
});

test('the early answer is handed out once, and only to who asks for the same', async () => {
  const reply = { ok: true } as Response;
  fetched.mockResolvedValue(reply);
  askEarly('house');
  expect(fetched).toHaveBeenCalledWith('/api/projects/house/document');
  expect(await takeEarly(documentPath('house'))).toBe(reply);
  expect(takeEarly(documentPath('house'))).toBeNull();
});

test('an answer for another project is dropped: it would be old when its project is opened', () => {
  fetched.mockResolvedValue({} as Response);
  askEarly('house');
  expect(takeEarly(documentPath('hill'))).toBeNull();
  expect(takeEarly(documentPath('house'))).toBeNull();
});

test('a failure is told to who takes it, and to nobody else', async () => {
  fetched.mockRejectedValue(new TypeError('no network'));
  askEarly('house');
  await new Promise((resolve) => setTimeout(resolve, 5));
  await expect(takeEarly(documentPath('house'))).rejects.toThrow('no network');
});
