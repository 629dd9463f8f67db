import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const accents = { primary: '#9B2D26', secondary: '#1E6B6A', error: '#9B2D26' }

export default defineNuxtPlugin((app) => {
  app.vueApp.use(
    createVuetify({
      icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
      theme: {
        defaultTheme: window.matchMedia('(prefers-color-scheme: dark)').matches ? 'evening' : 'paper',
        themes: {
          paper: {
            dark: false,
            colors: {
              ...accents,
              background: '#F6F1E7',
              surface: '#FBF8F2',
              'on-surface': '#2B2420',
              'on-background': '#2B2420',
            },
          },
          evening: {
            dark: true,
            colors: {
              ...accents,
              primary: '#C4554B',
              secondary: '#5FB0AC',
              background: '#241F1C',
              surface: '#2E2824',
              'on-surface': '#F1E9DC',
              'on-background': '#F1E9DC',
            },
          },
        },
      },
      defaults: {
        VTooltip: { openDelay: 500, location: 'bottom', eager: false },
        VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VAutocomplete: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
        VBtn: { variant: 'outlined', density: 'comfortable', rounded: 'md', ripple: false },
      },
    }),
  )
})
