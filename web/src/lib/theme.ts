export type Theme = 'light' | 'dim'

const KEY = 'bright-spoon.theme'

/** What the person chose here, else what their machine prefers. */
export function storedTheme(): Theme {
  const stored = localStorage.getItem(KEY)
  if (stored === 'light' || stored === 'dim') return stored
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dim' : 'light'
}

export function applyTheme(theme: Theme) {
  document.documentElement.dataset.theme = theme
}

export function rememberTheme(theme: Theme) {
  localStorage.setItem(KEY, theme)
  applyTheme(theme)
}

/** Paper is white: what is printed takes the colours of the light theme, whatever the page has. */
export function printInTheLight() {
  window.addEventListener('beforeprint', () => applyTheme('light'))
  window.addEventListener('afterprint', () => applyTheme(storedTheme()))
}
