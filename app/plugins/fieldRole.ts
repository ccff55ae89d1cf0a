declare module 'vue' {
  interface GlobalDirectives {
    vFieldRole: import('vue').Directive<HTMLElement, string>
  }
}

/** `v-field-role` gives a role to the field within a part of Vuetify, which would give it to the frame around the field as well. */
export default defineNuxtPlugin(nuxt => {
  nuxt.vueApp.directive<HTMLElement, string>('field-role', {
    mounted: (element, { value }) => element.querySelector('input')!.setAttribute('role', value),
  })
})
