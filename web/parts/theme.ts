const KEY = 'ebbet-theme';
const THEMES = ['ebbet-day', 'ebbet-night'] as const;
export type Theme = (typeof THEMES)[number];

const darkSystem = (): MediaQueryList => window.matchMedia('(prefers-color-scheme: dark)');
const heard = new Set<() => void>();

/** The colours that were chosen; until then those the system prefers. */
export function readTheme(): Theme {
  const chosen = THEMES.find((theme) => theme === localStorage.getItem(KEY));
  return chosen ?? (darkSystem().matches ? 'ebbet-night' : 'ebbet-day');
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  showTheme();
}

/** Shows the colours there are to be, now and whenever the system prefers others. */
export function followTheme(): void {
  darkSystem().addEventListener('change', showTheme);
  showTheme();
}

/** Calls back whenever other colours are shown; returns what ends that. */
export function onTheme(changed: () => void): () => void {
  heard.add(changed);
  return () => heard.delete(changed);
}

function showTheme(): void {
  document.documentElement.dataset.theme = readTheme();
  for (const changed of heard) changed();
}
