import { defineVuetifyConfiguration } from 'vuetify-nuxt-module/custom-configuration'

export default defineVuetifyConfiguration({
  icons: { defaultSet: 'mdi-svg' },
  theme: {
    defaultTheme: 'galvanised',
    themes: {
      galvanised: {
        dark: false,
        colors: {
          'background': '#E8ECEB',
          'surface': '#FFFFFF',
          'on-background': '#17211F',
          'on-surface': '#17211F',
          'primary': '#0E6A68',
          'error': '#B4532A',
          'warning': '#E3B23C',
          'success': '#4B7A3A',
        },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VBtn: { variant: 'outlined', color: 'primary', density: 'compact', height: 30, class: 'text-none', elevation: 0 },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto', color: 'primary' },
    VTable: { density: 'compact' },
    VDataTableServer: { density: 'compact' },
    VAlert: { variant: 'flat', density: 'compact', rounded: '0' },
    VMenu: { transition: false },
    VDialog: { transition: false, maxWidth: 520 },
  },
})
