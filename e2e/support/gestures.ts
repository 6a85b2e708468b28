import type { Page } from '@playwright/test';

declare global {
  interface Window {
    /** What a hand has done on this page: see {@link countGestures}. */
    gestures?: number;
  }
}

/**
 * Counts what a hand does from now on, until the page is loaded again: each press of the pointer, each value that is typed,
 * and each key besides, which may be held.
 */
export async function countGestures(page: Page): Promise<() => Promise<number>> {
  await page.evaluate(() => {
    let held = '';
    window.gestures = 0;
    const one = (key = '') => {
      if (key !== '' && key === held) return;
      held = key;
      window.gestures! += 1;
    };
    window.addEventListener('pointerdown', () => one(), true);
    window.addEventListener('input', () => one(), true);
    window.addEventListener(
      'keydown',
      ({ key, target }) => {
        const modifies = ['Shift', 'Control', 'Meta', 'Alt'].includes(key);
        if (!modifies && !(target instanceof HTMLInputElement)) one(key);
      },
      true,
    );
  });
  return () => page.evaluate(() => window.gestures!);
}
