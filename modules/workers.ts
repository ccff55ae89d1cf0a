import { readdir } from 'node:fs/promises'
import { join } from 'node:path'
import { defineNuxtModule } from 'nuxt/kit'
import { build } from 'esbuild'

/** Builds each file of server/workers into .output/workers, where the services start them from. */
export default defineNuxtModule({
  meta: { name: 'trough-workers' },
  setup(_options, nuxt) {
    nuxt.hook('nitro:init', (nitro) => {
      nitro.hooks.hook('compiled', async () => {
        const folder = join(nuxt.options.rootDir, 'server/workers')
        const names = (await readdir(folder)).filter(name => name.endsWith('.ts') && !name.endsWith('.test.ts'))
        await build({
          entryPoints: names.map(name => join(folder, name)),
          outdir: join(nuxt.options.rootDir, '.output/workers'),
          outExtension: { '.js': '.mjs' },
          bundle: true, packages: 'external', platform: 'node', target: 'node20', format: 'esm',
        })
      })
    })
  },
})
