import { percentile } from './measure.mjs';

/** Counts frames of the page, pictures, and how long input waits until a frame has handled it. */
const watch = () => {
  const state = { frames: [], inputs: [], pictures: 0, last: performance.now() };
  const canvas = document.querySelector('[data-testid="picture-canvas"]');
  const first = Number(canvas.dataset.pictures ?? 0);
  let running = true;
  requestAnimationFrame(function tick(now) {
    state.frames.push(now - state.last);
    state.last = now;
    if (running) requestAnimationFrame(tick);
  });
  const onMove = (event) => requestAnimationFrame(() => state.inputs.push(performance.now() - event.timeStamp));
  window.addEventListener('pointermove', onMove, { capture: true });
  globalThis.finishWatch = () => {
    running = false;
    window.removeEventListener('pointermove', onMove, { capture: true });
    state.pictures = Number(canvas.dataset.pictures ?? 0) - first;
    return state;
  };
};

/** Drags for five seconds and says how page and picture followed. */
export async function dragging(page, from, over) {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.evaluate(watch);
  const started = Date.now();
  while (Date.now() - started < 5000) {
    const t = (Date.now() - started) / 1000;
    await page.mouse.move(from.x + over.x * Math.sin(t * 2), from.y + over.y * Math.sin(t * 3));
    await page.waitForTimeout(8);
  }
  const state = await page.evaluate(() => globalThis.finishWatch());
  const seconds = (Date.now() - started) / 1000;
  await page.mouse.up();
  return {
    fps: state.frames.length / seconds,
    pictures: state.pictures / seconds,
    input: percentile(state.inputs, 0.95),
    inputs: state.inputs.length,
  };
}

/**
 * Has a page note how long it takes from the next event of a kind until something else is said of an element.
 * @param said what is said of the element; runs in the page
 */
export async function watchAnswer(page, kind, selector, said) {
  const says = await page.evaluateHandle(`(${said})`);
  await page.evaluate(
    ([says, kind, selector]) => {
      const element = document.querySelector(selector);
      const before = says(element);
      globalThis.answered = new Promise((resolve) => {
        window.addEventListener(
          kind,
          ({ timeStamp }) => {
            const seen = new MutationObserver(() => {
              if (says(element) === before) return;
              seen.disconnect();
              requestAnimationFrame(() => resolve(performance.now() - timeStamp));
            });
            seen.observe(element, { attributes: true, subtree: true, childList: true, characterData: true });
          },
          { capture: true, once: true },
        );
      });
    },
    [says, kind, selector],
  );
}

/** Milliseconds that were noted. */
export const answered = (page) => page.evaluate(() => globalThis.answered);
