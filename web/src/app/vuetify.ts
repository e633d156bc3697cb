// Vuetify as the skeleton: our tokens, our shapes.
import 'vuetify/styles'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const glare = {
  dark: false,
  colors: {
    background: '#f3f6f7',
    surface: '#ffffff',
    'surface-variant': '#dfe6e9',
    'on-surface': '#0b1418',
    'on-background': '#0b1418',
    primary: '#0b1418',
    'on-primary': '#ffffff',
    secondary: '#37474f',
    accent: '#a02b00',
    error: '#8f1d00',
    info: '#0b1418',
    success: '#0b1418',
    warning: '#a02b00',
  },
}

const beforeDawn = {
  dark: true,
  colors: {
    background: '#0a0b0c',
    surface: '#131415',
    'surface-variant': '#26221f',
    'on-surface': '#e2b08a',
    'on-background': '#e2b08a',
    primary: '#e2b08a',
    'on-primary': '#0a0b0c',
    secondary: '#b98d6c',
    accent: '#ff7a3c',
    error: '#ff8a5c',
    info: '#e2b08a',
    success: '#e2b08a',
    warning: '#ff7a3c',
  },
}

export function makeVuetify() {
  return createVuetify({
    icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
    theme: { defaultTheme: 'glare', themes: { glare, beforeDawn } },
    defaults: {
      VBtn: { variant: 'outlined', rounded: 'sm', elevation: 0 },
      VCard: { elevation: 0, rounded: 'sm', border: true },
      VTextField: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
      VSelect: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
      VDialog: { maxWidth: 460 },
    },
  })
}
