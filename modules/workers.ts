import { defineNuxtModule } from 'nuxt/kit'
import { buildWorkers } from '../server/buildWorkers'

/** Builds the workers behind the server. */
export default defineNuxtModule({
  meta: { name: 'trough-workers' },
  setup(_options, nuxt) {
    nuxt.hook('nitro:init', nitro => {
      nitro.hooks.hook('compiled', () => buildWorkers(nuxt.options.rootDir))
    })
  },
})
