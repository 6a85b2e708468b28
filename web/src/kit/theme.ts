import { useSyncExternalStore } from 'react';

export type Theme = 'day' | 'evening';

const KEY = 'eskovan-theme';
const listeners = new Set<() => void>();

function currentTheme(): Theme {
  return localStorage.getItem(KEY) === 'evening' ? 'evening' : 'day';
}

export function applyTheme(theme: Theme = currentTheme()): void {
  localStorage.setItem(KEY, theme);
  document.documentElement.dataset['theme'] = theme;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The theme, for what must know when it changes: colours of a canvas do not follow by themselves. */
export const useTheme = (): Theme => useSyncExternalStore(subscribe, currentTheme);
