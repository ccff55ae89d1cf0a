import { nextTick } from 'vue'

declare module 'vue' {
  interface GlobalDirectives {
    vFocus: import('vue').Directive<HTMLElement, boolean | undefined>
  }
}

/** `v-focus` gives the keyboard to what just came up. A browser's own `autofocus` does nothing once something had the focus. */
export default defineNuxtPlugin(nuxt => {
  nuxt.vueApp.directive<HTMLElement, boolean | undefined>('focus', {
    mounted: (element, { value = true }) => void (value && nextTick(() => element.focus())),
  })
})
