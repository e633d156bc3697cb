// Vuetify as the skeleton: our tokens, our shapes.
import 'vuetify/styles'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

/**
 * The colours of a theme, written once: Vuetify's own names point to them here, and `tokens.css` gives each a CSS name.
 * Ink on frost by day, ember on ink before dawn; `now` is for what is to be done now, and for nothing else.
 */
interface Tokens {
  ink: string
  'ink-2': string
  line: string
  frost: string
  'frost-2': string
  water: string
  bed: string
  now: string
  'now-ink': string
}
const GLARE: Tokens = {
  ink: '#0b1418',
  'ink-2': '#36464e',
  line: '#b9c6cc',
  frost: '#ffffff',
  'frost-2': '#f3f6f7',
  water: '#e9f0f3',
  bed: '#c9c2b4',
  now: '#a02b00',
  'now-ink': '#ffffff',
}
const BEFORE_DAWN: Tokens = {
  ink: '#e2b08a',
  'ink-2': '#c4987a',
  line: '#4a3f36',
  frost: '#131415',
  'frost-2': '#0a0b0c',
  water: '#101516',
  bed: '#2a241d',
  now: '#ff7a3c',
  'now-ink': '#0a0b0c',
}

function theme(dark: boolean, tokens: Tokens) {
  const { ink, frost, now } = tokens
  return {
    dark,
    colors: {
      ...tokens,
      background: tokens['frost-2'],
      surface: frost,
      'surface-variant': tokens.line,
      'on-surface': ink,
      'on-background': ink,
      primary: ink,
      'on-primary': frost,
      secondary: tokens['ink-2'],
      accent: now,
      error: now,
      info: ink,
      success: ink,
      warning: now,
    },
  }
}

export function makeVuetify() {
  return createVuetify({
    icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
    theme: { defaultTheme: 'glare', themes: { glare: theme(false, GLARE), beforeDawn: theme(true, BEFORE_DAWN) } },
    defaults: {
      VBtn: { variant: 'outlined', rounded: 'sm', elevation: 0 },
      VCard: { elevation: 0, rounded: 'sm', border: true },
      VTextField: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
      VSelect: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
      VDialog: { maxWidth: 460 },
      // A menu that is still growing is a button that moves away under a wet thumb.
      VMenu: { transition: false },
    },
  })
}
