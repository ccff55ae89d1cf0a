import { fileURLToPath } from 'node:url'
import { defineNuxtConfig } from 'nuxt/config'

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  telemetry: false,
  devtools: { enabled: false },
  // The desk runs in the browser; visitors' pages are rendered by core/page, not by Vue.
  ssr: false,
  modules: ['@pinia/nuxt', '@vueuse/nuxt', 'vuetify-nuxt-module', './modules/workers', './modules/fonts'],
  css: [
    // Without its classes for single properties, which are half of all its rules: nothing here is written with them.
    'vuetify/styles/core',
    '@fontsource-variable/hanken-grotesk/index.css',
    '@fontsource/ibm-plex-mono/400.css',
    '@fontsource/ibm-plex-mono/500.css',
    '~/theme/desk.css',
    '~/theme/vuetify.css',
  ],
  imports: { autoImport: true },
  components: [{ path: '~/components', pathPrefix: false }],
  app: {
    head: {
      title: 'Trough',
      htmlAttrs: { lang: 'en' },
      meta: [{ name: 'robots', content: 'noindex' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/_desk/mark.svg' }],
    },
  },
  vuetify: { vuetifyOptions: './vuetify.config.ts', moduleOptions: { styles: true, disableVuetifyStyles: true } },
  nitro: {
    preset: 'node-server',
    entry: fileURLToPath(new URL('./server/entry.ts', import.meta.url)),
    // The server runs beside its node_modules; copying them would only break PGlite's and pdfium's own files.
    // What is small and many files is built in: finding and reading each by itself is half of what a start takes.
    externals: {
      trace: false,
      inline: ['@tus/server', '@tus/utils', 'chardet', 'diff', 'drizzle-orm', 'file-type', 'zod'],
    },
    replace: { 'process.env.TROUGH_ROOT': JSON.stringify(fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '')) },
    errorHandler: '~~/server/error',
    // Packed once, when built.
    compressPublicAssets: true,
    esbuild: { options: { target: 'node20' } },
    typescript: { tsConfig: { include: ['../types/*.d.ts'], compilerOptions: { verbatimModuleSyntax: true } } },
  },
  typescript: { tsConfig: { include: ['../types/*.d.ts'], compilerOptions: { noUnusedLocals: true } } },
  // One style sheet instead of forty.
  vite: { build: { cssCodeSplit: false } },
  experimental: {
    appManifest: false,
    // A link that comes into sight would fetch the board it leads to, the editor with all it holds, while the list is on its way.
    defaults: { nuxtLink: { prefetch: false } },
  },
  hooks: {
    // What every board might need is not fetched before one is opened: on a slow line that is most of the wait, on any a hundred requests.
    'build:manifest': manifest => {
      for (const resource of Object.values(manifest)) resource.prefetch = false
    },
  },
})
