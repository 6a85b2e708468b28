import { parseKeybinding, matchKeyBindingPress } from 'tinykeys';

/** Is this key meant for what is being typed into? */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target;
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      target.tagName === 'TEXTAREA' ||
      (target.tagName === 'INPUT' &&
        !['checkbox', 'radio', 'color', 'button'].includes((target as HTMLInputElement).type)))
  );
}

/** Is a dialog, menu or list open? Then keys are theirs. */
export const isCovered = (): boolean =>
  document.querySelector(
    '[role="dialog"][data-state="open"], [role="menu"][data-state="open"], [role="listbox"]:not([data-always])',
  ) !== null;

/** Keys that what is focused answers to by itself: a button is pressed by Space. */
export function isTaken(event: KeyboardEvent): boolean {
  if (event.key !== ' ' && event.key !== 'Enter') return false;
  const target = event.target;
  return (
    target instanceof Element &&
    target.closest('button, a, summary, [role="button"], [role="treeitem"], [role="option"]') !== null
  );
}

/** Does an event press these keys? Written as tinykeys has them: `p`, `Shift+?`, `$mod+z`; a space parts two ways. */
export const isPress = (event: KeyboardEvent, keys: string): boolean =>
  keys.split(' ').some((way) => parseKeybinding(way).some((press) => matchKeyBindingPress(event, press)));

/** A key without Ctrl, Alt or Meta that types a character: such keys can be switched off. */
export const isSingle = (keys: string): boolean => keys.split(' ').some((way) => /^(Shift\+)?.$/.test(way));

const NAMES: Record<string, string> = {
  Space: 'Space',
  Escape: 'Esc',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  $mod: 'Ctrl',
  Comma: ',',
  Period: '.',
  BracketLeft: '[',
  BracketRight: ']',
  Minus: '−',
  Equal: '=',
  PageUp: 'Page up',
  PageDown: 'Page down',
};

const wayInWords = (way: string): string =>
  way
    .split(/\+(?=.)/)
    .map((key) => NAMES[key] ?? (key.length === 1 ? key.toUpperCase() : key))
    .join(' ')
    // A sign is what it is, however a keyboard comes to it.
    .replace(/^Shift (?=[^A-Z]$)/, '');

/** Keys in words, for sheets and menus. */
export const keysInWords = (keys: string): string => [...new Set(keys.split(' ').map(wayInWords))].join(' or ');
