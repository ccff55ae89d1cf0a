import js from '@eslint/js'
import ts from 'typescript-eslint'
import { fileURLToPath } from 'node:url'
import { createNodeResolver, importX } from 'eslint-plugin-import-x'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import globals from 'globals'

const ROOT = fileURLToPath(new URL('.', import.meta.url))

/** The services, by the floor they stand on: each may lean on those below it, and on none beside or above. */
const FLOORS = [
  ['lettering', 'tally', 'uses', 'watch'],
  ['account', 'contacts', 'files', 'guests', 'reading', 'rights'],
  ['gates'],
  ['bundles', 'pages', 'pictures'],
  ['library', 'looks', 'signposts'],
  ['editions', 'replacing', 'site', 'trust', 'uploads'],
  ['delivery', 'jobs', 'outbox', 'recognising', 'timetable'],
  ['bags', 'catalogues', 'downloads', 'hooks', 'oldAddresses', 'shelves', 'walk'],
  ['published'],
  ['entering', 'people', 'searching', 'seeing'],
  ['letterbox'],
]
/** What the formatter leaves longer: words for people, and text in another language, which no break may fall into. */
const LINE = { code: 140, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true, ignoreUrls: true }
/** Controls of the browser's own. */
const RAW_CONTROLS = ['button', 'input', 'select', 'textarea', 'details', 'dialog']
/** What no file of the server may know. */
const ABOVE_SERVER = ['**/app/**', 'vue']
const floorRules = FLOORS.flatMap((floor, height) =>
  floor.map(service => ({
    files: [`server/services/${service}/**/*.ts`],
    // Tests open everything.
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            ...ABOVE_SERVER,
            '**/server/api/**',
            '../../api/**',
            '../../visitors/**',
            '../../utils/**',
            '../../trough',
            ...FLOORS.slice(height)
              .flat()
              .filter(other => other !== service)
              .map(other => `../${other}/**`),
          ],
        },
      ],
    },
  })),
)

export default ts.config(
  { ignores: ['node_modules/', '.nuxt/', '.output/', 'demo-data/', 'data/', 'test-results/', 'server/db/migrations/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  // How it looks is the formatter's.
  prettier,
  {
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: {
      // TypeScript knows Nuxt's own names; ESLint does not.
      'no-undef': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/only-throw-error': 'off',
      'no-restricted-imports': 'off',
      'no-empty': ['error', { allowEmptyCatch: false }],
      'max-len': ['error', LINE],
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: {
      'vue/multi-word-component-names': 'off',
      // The desk is made of Vuetify's parts: where one cannot be used, a line says why.
      'vue/no-restricted-html-elements': ['error', ...RAW_CONTROLS],
      'max-len': 'off',
      'vue/max-len': ['error', { ...LINE, template: 140, ignoreHTMLTextContents: true, ignoreHTMLAttributeValues: true }],
    },
  },
  {
    // The lower a layer lies, the less it may know.
    files: ['core/**/*.ts'],
    // Tests ask reference tools.
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['**/server/**', '**/app/**', 'vue', 'h3', 'node:*', 'drizzle-orm*'] }] },
  },
  {
    files: ['server/**/*.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: ABOVE_SERVER }] },
  },
  ...floorRules,
  {
    // A promise that nobody waits for takes its error with it.
    files: ['app/**/*.ts', 'core/**/*.ts', 'server/**/*.ts', 'demo/**/*.ts', 'bench/**/*.ts', 'e2e/**/*.ts'],
    languageOptions: { parserOptions: { project: './tsconfig.json', tsconfigRootDir: ROOT } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      // What hears of an event may be async: what it throws ends its worker, and whoever asked that hears it.
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { arguments: false, properties: false } }],
    },
  },
  {
    // What both sides share lies in core.
    files: ['app/**/*.ts', 'app/**/*.vue'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['**/server/**'] }] },
  },
  {
    files: ['app/**/*.ts', 'core/**/*.ts', 'server/**/*.ts'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.mjs', '.js'], alias: { '~~': [ROOT], '~': [`${ROOT}app`] } })],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
)
