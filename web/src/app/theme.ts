import { createVuetify } from 'vuetify'

export type ThemeName = 'night' | 'day'

const key = 'metronix.theme'

function first(): ThemeName {
  const kept = localStorage.getItem(key)
  if (kept === 'night' || kept === 'day') return kept
  return matchMedia('(prefers-color-scheme: light)').matches ? 'day' : 'night'
}

/** How strong each state is drawn over a control, in both themes. */
const strengths = {
  'border-opacity': 0.38,
  'high-emphasis-opacity': 1,
  'medium-emphasis-opacity': 0.85,
  'disabled-opacity': 0.5,
  'idle-opacity': 0.1,
  'hover-opacity': 0.06,
  'focus-opacity': 0.12,
  'selected-opacity': 0.1,
  'activated-opacity': 0.12,
  'pressed-opacity': 0.16,
  'dragged-opacity': 0.1,
}

/** The colours of the two themes, declared once: look.css gives them their short names. */
const night = {
  dark: true,
  colors: {
    background: '#10272b',
    surface: '#16343a',
    'surface-variant': '#2b5057',
    'surface-light': '#2b5057',
    'surface-bright': '#2b5057',
    'on-background': '#f4f0e6',
    'on-surface': '#f4f0e6',
    'on-surface-variant': '#f4f0e6',
    primary: '#e0ae4a',
    'on-primary': '#10272b',
    error: '#ff7a5c',
    sunk: '#0b1d20',
    quiet: '#a9bdbb',
    line: '#2b5057',
    edge: '#47737b',
    in: '#4cc4a6',
    tight: '#ff7a5c',
    loose: '#a9a4ff',
    undecided: '#e2c15a',
    bar: '#2f5d66',
  },
  variables: {
    ...strengths,
    'border-color': '#a9bdbb',
    shade: 'rgb(3 12 14 / 55%)',
    wash: 'rgb(224 174 74 / 13%)',
  },
}

const day = {
  dark: false,
  colors: {
    background: '#f4f0e6',
    surface: '#fffdf7',
    'surface-variant': '#cfc7b4',
    'surface-light': '#e6dfce',
    'surface-bright': '#fffdf7',
    'on-background': '#10272b',
    'on-surface': '#10272b',
    'on-surface-variant': '#10272b',
    primary: '#8a5f0c',
    'on-primary': '#fffdf7',
    error: '#b83a21',
    sunk: '#e6dfce',
    quiet: '#4a5f63',
    line: '#cfc7b4',
    edge: '#8d9488',
    in: '#1b6e61',
    tight: '#b83a21',
    loose: '#5a55a8',
    undecided: '#7a5c00',
    bar: '#b9b29d',
  },
  variables: {
    ...strengths,
    'border-color': '#10272b',
    shade: 'rgb(16 39 43 / 28%)',
    wash: 'rgb(138 95 12 / 10%)',
  },
}

/** The few signs that the base draws on its controls, ours to draw: paths in a square of 24. */
const signs = {
  checkboxOff: 'svg:M4 4h16v16H4zM6 6v12h12V6z',
  checkboxOn: 'svg:M4 4h16v16H4zM9.5 17.5L18.5 8.5 17 7 9.5 14.5 7 12 5.5 13.5z',
  clear: 'svg:M6.4 5L12 10.6 17.6 5 19 6.4 13.4 12 19 17.6 17.6 19 12 13.4 6.4 19 5 17.6 10.6 12 5 6.4z',
  collapse: 'svg:M5 15.5L12 8.5 19 15.5 20.4 14.1 12 5.7 3.6 14.1z',
  dropdown: 'svg:M5 8.5L12 15.5 19 8.5 20.4 9.9 12 18.3 3.6 9.9z',
  expand: 'svg:M5 8.5L12 15.5 19 8.5 20.4 9.9 12 18.3 3.6 9.9z',
  minus: 'svg:M5 11h14v2H5z',
  plus: 'svg:M11 5h2v6h6v2h-6v6h-2v-6H5v-2h6z',
}

/** What the content policy wants on a style that a script writes: the answer that brought the page named it. */
const nonce = document.querySelector<HTMLElement>('meta[property="csp-nonce"]')?.nonce || undefined

/** The base of every ordinary control: its look is ours by the theme, by these defaults and by look.css. */
export const vuetify = createVuetify({
  theme: { defaultTheme: first(), themes: { night, day }, cspNonce: nonce },
  icons: { defaultSet: 'mdi', aliases: { ...signs } },
  defaults: {
    VAlert: { icon: false, variant: 'outlined', color: 'undecided' },
    VBtn: { ripple: false, variant: 'outlined' },
    VCheckbox: { hideDetails: true, ripple: false },
    VFileInput: { variant: 'outlined', hideDetails: true, prependIcon: '' },
    VNumberInput: { variant: 'outlined', hideDetails: true },
    VSelect: { variant: 'outlined' },
    VSwitch: { hideDetails: true, ripple: false, inset: true, color: 'primary' },
    VTextarea: { variant: 'outlined' },
    VTextField: { variant: 'outlined' },
  },
})

/** The theme in use. */
export const theme = vuetify.theme.name

/** Puts the theme on the page and remembers it. */
export function setTheme(name: ThemeName) {
  vuetify.theme.change(name)
  document.documentElement.dataset.theme = name
  localStorage.setItem(key, name)
}

document.documentElement.dataset.theme = theme.value
