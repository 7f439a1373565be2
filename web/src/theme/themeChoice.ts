export const THEMES = ['auto', 'light', 'dark'] as const;
export type Theme = (typeof THEMES)[number];

const KEY = 'zonal.theme';

/** Returns the theme that was chosen on this device. */
export function chosenTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  return THEMES.find((t) => t === kept) ?? 'auto';
}

/** Shows a theme and keeps the choice on this device. */
export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  document.documentElement.dataset['theme'] = theme;
}
