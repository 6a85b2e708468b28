// jsdom lacks what the application's libraries take for granted.
import { webcrypto } from 'node:crypto';
import { TextDecoder, TextEncoder } from 'node:util';

globalThis.TextEncoder ??= TextEncoder;
globalThis.TextDecoder ??= TextDecoder;
globalThis.structuredClone ??= (value) => JSON.parse(JSON.stringify(value));
if (!globalThis.crypto?.randomUUID) Object.defineProperty(globalThis, 'crypto', { value: webcrypto });
globalThis.ResizeObserver ??= class {
  constructor(callback) {
    this.callback = callback;
  }
  observe(element) {
    // Everything in jsdom has no size; give it one.
    this.callback([{ contentRect: { width: 800, height: 300 }, target: element }], this);
  }
  unobserve() {}
  disconnect() {}
};
globalThis.PointerEvent ??= class extends MouseEvent {
  constructor(type, init) {
    super(type, init);
    this.pointerId = init?.pointerId ?? 1;
  }
};
const captured = new Set();
Element.prototype.setPointerCapture = (id) => captured.add(id);
Element.prototype.releasePointerCapture = (id) => captured.delete(id);
Element.prototype.hasPointerCapture = (id) => captured.has(id);
Element.prototype.scrollIntoView = () => {};
HTMLCanvasElement.prototype.getContext = () => null;
await import('fake-indexeddb/auto');
const { configure } = await import('@testing-library/dom');
configure({ asyncUtilTimeout: 20_000 });
