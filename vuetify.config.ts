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

/** A list that is longer than its window can be scrolled by keys (WCAG 2.2, 2.1.1). */
const LISTING = { listProps: { tabindex: 0 } }

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
    VFileInput: { ...FIELD, prependIcon: '' },
    VNumberInput: { ...FIELD, controlVariant: 'hidden' },
    VSelect: { ...FIELD, ...LISTING },
    VAutocomplete: { ...FIELD, ...LISTING },
    VCombobox: { ...FIELD, ...LISTING },
    VCheckbox: { density: 'compact', hideDetails: 'auto', color: 'primary', persistentHint: true },
    VRadioGroup: { density: 'compact', hideDetails: 'auto', color: 'primary' },
    VSlider: { color: 'primary', hideDetails: true, thumbSize: 14, trackSize: 2 },
    VExpansionPanels: { elevation: 0, static: true },
    VList: { density: 'compact' },
    VTable: { density: 'compact' },
    // A table is as long as what it tells; one that goes on by pages says so itself.
    VDataTable: { density: 'compact', itemsPerPage: -1, hideDefaultFooter: true },
    VDataTableServer: { density: 'compact', mobileBreakpoint: 600 },
    VAlert: { variant: 'flat', density: 'compact', rounded: '0' },
    // What is open belongs to a landmark, as everything on the page does.
    VMenu: { transition: false, contentProps: { 'role': 'region', 'aria-label': 'Choices' } },
    VDialog: { transition: false, maxWidth: 520 },
    VDatePicker: { hideHeader: true, showAdjacentMonths: true, color: 'primary' },
    VTabs: { density: 'compact', color: 'primary' },
    VProgressLinear: { color: 'primary', height: 6 },
  },
})
