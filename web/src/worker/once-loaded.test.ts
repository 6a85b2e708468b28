import { describe, expect, jest, test } from '@jest/globals';
import { onceLoaded } from './once-loaded.ts';

const scope = () => Object.assign(new EventTarget(), { reportError: jest.fn() });
const say = (to: EventTarget, data: string) => to.dispatchEvent(new MessageEvent('message', { data, origin: 'page' }));

describe('messages to a worker whose code is being loaded', () => {
  test('are answered in their order once it is there, and each once', async () => {
    const worker = scope();
    const heard: string[] = [];
    let arrive = () => {};
    const begun = onceLoaded(worker, async () => {
      await new Promise<void>((resolve) => (arrive = resolve));
      worker.addEventListener('message', (event) => {
        const { data, origin } = event as MessageEvent<string>;
        heard.push(`${data} from ${origin}`);
      });
    });
    say(worker, 'load');
    say(worker, 'draw');
    expect(heard).toEqual([]);
    arrive();
    await begun;
    expect(heard).toEqual(['load from page', 'draw from page']);
    say(worker, 'pick');
    expect(heard).toEqual(['load from page', 'draw from page', 'pick from page']);
  });

  test('end with the worker where it does not come: the page is told', async () => {
    const worker = scope();
    const gone = new Error('no such file');
    await onceLoaded(worker, () => Promise.reject(gone));
    expect(worker.reportError).toHaveBeenCalledWith(gone);
  });
});
