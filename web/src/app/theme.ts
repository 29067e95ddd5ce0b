import { ref } from 'vue'

export type ThemeName = 'night' | 'day'

const key = 'metronix.theme'

function first(): ThemeName {
  const kept = localStorage.getItem(key)
  if (kept === 'night' || kept === 'day') return kept
  return matchMedia('(prefers-color-scheme: light)').matches ? 'day' : 'night'
}

/** The theme in use. */
export const theme = ref<ThemeName>(first())

/** Puts the theme on the page and remembers it. */
export function setTheme(name: ThemeName) {
  theme.value = name
  document.documentElement.dataset.theme = name
  localStorage.setItem(key, name)
}

document.documentElement.dataset.theme = theme.value
