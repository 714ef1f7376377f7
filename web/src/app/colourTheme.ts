/** Light or dark: kept in this browser, at first as the system has it. */
export type ColourTheme = 'light' | 'dark'

const KEY = 'rivo.theme'

export function keptTheme(): ColourTheme {
  const kept = window.localStorage.getItem(KEY)
  if (kept === 'light' || kept === 'dark') {
    return kept
  }
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light'
}

export function applyTheme(theme: ColourTheme): void {
  document.documentElement.classList.remove('light', 'dark')
  document.documentElement.classList.add(theme)
  document.documentElement.style.colorScheme = theme
}

export function keepTheme(theme: ColourTheme): void {
  window.localStorage.setItem(KEY, theme)
  applyTheme(theme)
}
