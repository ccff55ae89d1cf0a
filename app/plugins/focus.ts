import { nextTick } from 'vue'

declare module 'vue' {
  interface GlobalDirectives {
    vFocus: import('vue').Directive<HTMLElement, boolean | undefined>
  }
}

const TAKES_KEYS = 'input, textarea, button, a[href], [tabindex]'

/**
 * `v-focus` gives the keyboard to what just came up, or to the first in it that takes keys. A browser's own `autofocus` does nothing once
 * something had the focus, and Vuetify's comes late: it would take the keyboard from whoever is typing in the next field already.
 */
export default defineNuxtPlugin(nuxt => {
  nuxt.vueApp.directive<HTMLElement, boolean | undefined>('focus', {
    mounted: (element, { value = true }) => {
      if (!value) return
      const field = element.matches(TAKES_KEYS) ? element : element.querySelector<HTMLElement>(TAKES_KEYS)
      void nextTick(() => field?.focus())
    },
  })
})
