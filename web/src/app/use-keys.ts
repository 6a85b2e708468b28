import { useEffect, useRef } from 'react';

/** Is this key meant for what is being typed into? */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target;
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  );
}

/**
 * Listens for plain keys on the whole screen: nothing while somebody types, nothing with Ctrl, Alt or Meta.
 * @param onKey returns true when the key was meant for it
 */
export function useKeys(onKey: (event: KeyboardEvent) => boolean): void {
  // Always the newest handler, without listening anew at every drawing.
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (latest.current(event)) event.preventDefault();
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, []);
}
