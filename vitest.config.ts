import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['core/**/*.test.ts', 'server/**/*.test.ts'],
    globalSetup: './server/testing/globalSetup.ts',
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // Each database takes some 320 MB.
    maxWorkers: 2,
  },
})
