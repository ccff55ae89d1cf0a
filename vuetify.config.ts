import { defineVuetifyConfiguration } from 'vuetify-nuxt-module/custom-configuration'

/**
 * Labels stand above their fields at all times, placeholders show before a field is entered, and hints stay: what came and went with the
 * focus would move the button away that is pressed next.
 */
const FIELD = {
  variant: 'outlined',
  density: 'compact',
  hideDetails: 'auto',
  color: 'primary',
  persistentPlaceholder: true,
  persistentHint: true,
} as const

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
          'ink': '#17211F',
          'soft': '#4C5A57',
          'clay': '#9A4420',
        },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VBtn: { variant: 'text', color: 'primary' },
    VBtnToggle: { mandatory: true, divided: false },
    VTextField: FIELD,
    VTextarea: FIELD,
    VNumberInput: { ...FIELD, controlVariant: 'hidden' },
    VSelect: FIELD,
    VAutocomplete: FIELD,
    VCombobox: FIELD,
    VCheckbox: { density: 'compact', hideDetails: 'auto', color: 'primary', persistentHint: true },
    VRadioGroup: { density: 'compact', hideDetails: 'auto', color: 'primary' },
    VSlider: { color: 'primary', hideDetails: true, thumbSize: 14, trackSize: 2 },
    VExpansionPanels: { elevation: 0, static: true },
    VList: { density: 'compact' },
    VTable: { density: 'compact' },
    VDataTableServer: { density: 'compact' },
    VAlert: { variant: 'flat', density: 'compact', rounded: '0' },
    VMenu: { transition: false },
    VDialog: { transition: false, maxWidth: 520 },
    VTabs: { density: 'compact', color: 'primary' },
    VProgressLinear: { color: 'primary', height: 6 },
  },
})
