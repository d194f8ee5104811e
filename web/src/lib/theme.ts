export type Theme = 'light' | 'dim'

const KEY = 'bright-spoon.theme'

/** What the person chose here, else what their machine prefers. */
export function storedTheme(): Theme {
  let stored: string | null = null
  try {
    stored = localStorage.getItem(KEY)
  } catch {
    // A forbidden store remembers nothing; the machine's own choice holds.
  }
  if (stored === 'light' || stored === 'dim') return stored
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dim' : 'light'
}

export function applyTheme(theme: Theme) {
  document.documentElement.dataset.theme = theme
}

export function rememberTheme(theme: Theme) {
  try {
    localStorage.setItem(KEY, theme)
  } catch {
    // It holds as long as the page stands.
  }
  applyTheme(theme)
}

/** Paper is white: what is printed takes the colours of the light theme, whatever the page has. */
export function printInTheLight() {
  window.addEventListener('beforeprint', () => applyTheme('light'))
  window.addEventListener('afterprint', () => applyTheme(storedTheme()))
}
