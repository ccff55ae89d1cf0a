import js from '@eslint/js'
import ts from 'typescript-eslint'
import vue from 'eslint-plugin-vue'
import globals from 'globals'

export default ts.config(
  { ignores: ['node_modules/', '.nuxt/', '.output/', 'demo-data/', 'data/', 'test-results/', 'server/db/migrations/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: {
      // TypeScript knows Nuxt's own names; ESLint does not.
      'no-undef': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/only-throw-error': 'off',
      'no-restricted-imports': 'off',
      'no-empty': ['error', { allowEmptyCatch: false }],
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: {
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': ['error', { html: { void: 'never', normal: 'any', component: 'always' } }],
      'vue/first-attribute-linebreak': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
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
    rules: { 'no-restricted-imports': ['error', { patterns: ['**/app/**', 'vue'] }] },
  },
)
