import { expect, test } from '@jest/globals';
import { bringIntoSight } from './bring-into.ts';

/** As a browser would have laid it out: `scrollTop` moves what is within. */
function laidOut(element: HTMLElement, top: number, height: number, within?: HTMLElement): void {
  element.getBoundingClientRect = () => new DOMRect(0, top - (within?.scrollTop ?? 0), 100, height);
}
globalThis.DOMRect ??= class {
  readonly top: number;
  readonly bottom: number;
  constructor(_x: number, y: number, _width: number, height: number) {
    this.top = y;
    this.bottom = y + height;
  }
} as unknown as typeof DOMRect;

test('what lies below or above the fold of what scrolls about it is brought in, no farther than it must; focus stays', () => {
  document.body.innerHTML = `<button>Here</button>
    <div id="list" style="overflow-y: auto"><div><p id="high">a</p><p id="low">b</p></div></div>`;
  const [list, high, low] = ['list', 'high', 'low'].map((id) => document.getElementById(id)!) as [
    HTMLElement,
    HTMLElement,
    HTMLElement,
  ];
  laidOut(list, 50, 100);
  laidOut(high, 50, 30, list);
  laidOut(low, 200, 30, list);
  const button = document.querySelector('button')!;
  button.focus();
  bringIntoSight(low);
  expect(list.scrollTop).toBe(80);
  bringIntoSight(low);
  expect(list.scrollTop).toBe(80);
  bringIntoSight(high);
  expect(list.scrollTop).toBe(0);
  expect(document.activeElement).toBe(button);
  // Where nothing scrolls there is nothing to do.
  list.style.overflowY = 'visible';
  bringIntoSight(low);
  expect(list.scrollTop).toBe(0);
});
