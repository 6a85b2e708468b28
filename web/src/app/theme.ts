export type Theme = 'day' | 'evening';

const KEY = 'eskovan-theme';

export function currentTheme(): Theme {
  return localStorage.getItem(KEY) === 'evening' ? 'evening' : 'day';
}

export function applyTheme(theme: Theme = currentTheme()): void {
  localStorage.setItem(KEY, theme);
  document.documentElement.dataset['theme'] = theme;
}
