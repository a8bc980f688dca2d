import { createVuetify, type ThemeDefinition } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const light: ThemeDefinition = {
  dark: false,
  colors: {
    background: '#F5F3EE',
    surface: '#FFFFFF',
    primary: '#0A6570',
    secondary: '#5A3EA6',
    error: '#A0102A',
    'on-background': '#15191D',
    'on-surface': '#15191D',
    quiet: '#535C63',
    rule: '#D8D4CA',
    live: '#0A6570',
    sheen: '#5A3EA6',
    danger: '#A0102A',
    fails: '#A64300',
    tight: '#705300',
    unproven: '#44557A',
    holds: '#17633F',
  },
}

const dark: ThemeDefinition = {
  dark: true,
  colors: {
    background: '#12161A',
    surface: '#1A2026',
    primary: '#4CC3CE',
    secondary: '#B7A2FF',
    error: '#FF8A96',
    'on-background': '#E9E6DF',
    'on-surface': '#E9E6DF',
    quiet: '#A3ADB5',
    rule: '#333C44',
    live: '#4CC3CE',
    sheen: '#B7A2FF',
    danger: '#FF8A96',
    fails: '#FFA266',
    tight: '#E0BE55',
    unproven: '#9DB2DE',
    holds: '#6FCF9B',
  },
}

const preferred =
  localStorage.getItem('magpie.theme') ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light')

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { defaultTheme: preferred, themes: { light, dark } },
  defaults: {
    VBtn: { variant: 'text', rounded: 'sm', density: 'comfortable', ripple: false },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VTextarea: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VAutocomplete: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VFileInput: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VDialog: { scrollable: true },
  },
})
