const KEY = 'ebbet-theme';
export type Theme = 'ebbet-day' | 'ebbet-night';

export function readTheme(): Theme {
  return localStorage.getItem(KEY) === 'ebbet-night' ? 'ebbet-night' : 'ebbet-day';
}

export function applyTheme(theme: Theme = readTheme()): void {
  localStorage.setItem(KEY, theme);
  document.documentElement.dataset.theme = theme;
}
