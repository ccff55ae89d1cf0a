import { fileURLToPath } from 'node:url'
import { defineVitestProject } from '@nuxt/test-utils/config'
import { defineConfig } from 'vitest/config'

/** What is only so where two connections work on one database. */
const SIDE_BY_SIDE = '**/*.postgres.test.ts'

/** Parts of the desk, mounted as the desk mounts them. */
const COMPONENTS = 'app/**/*.nuxt.test.ts'

/** Processes that are killed, disks that fill up, databases made anew, passwords, bombs: they take most of the time. */
const SLOW = [
  'server/faults.test.ts',
  'server/powerCuts.test.ts',
  'server/troubles.test.ts',
  'server/services/account/account.test.ts',
  'server/services/bags/bags.test.ts',
  'server/services/caches.test.ts',
  'server/services/jobs/fullDisk.test.ts',
  'server/services/oldAddresses/oldAddresses.test.ts',
  'server/services/trust/trust.test.ts',
  'server/workers/read.test.ts',
]

export default defineConfig({
  resolve: {
    alias: { '~~': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, ''), '~': fileURLToPath(new URL('./app', import.meta.url)) },
  },
  test: {
    // Long enough for a machine that has other work to do: no test waits for their ends.
    expect: { poll: { timeout: 60_000 } },
    testTimeout: 240_000,
    hookTimeout: 240_000,
    // The database's code is compiled once, not again for speed that a minute of tests would never win back: half of what opening one
    // costs.
    execArgv: ['--liftoff-only'],
    // What is written to the console is shown of tests that fail.
    silent: 'passed-only',
    // Each database takes some 320 MB.
    maxWorkers: 3,
    // Loading the services anew for each file would take a fifth of the time; no test leaves anything in a module.
    isolate: false,
    projects: [
      {
        extends: true,
        test: {
          name: 'pglite',
          include: ['core/**/*.test.ts', 'server/**/*.test.ts', 'app/**/*.test.ts'],
          exclude: [SIDE_BY_SIDE, COMPONENTS, ...(process.env.TROUGH_TEST_QUICK ? SLOW : [])],
          globalSetup: './server/testing/globalSetup.ts',
        },
      },
      {
        extends: true,
        test: {
          name: 'postgres',
          include: ['server/services/**/*.test.ts'],
          // Copies of the database's own folder, and disks that it fills.
          exclude: ['server/services/trust/**', 'server/services/jobs/fullDisk.test.ts'],
          globalSetup: './server/testing/postgresSetup.ts',
        },
      },
      await defineVitestProject({
        test: {
          name: 'desk',
          include: [COMPONENTS],
          // What is said above is not handed down to it.
          testTimeout: 240_000,
          hookTimeout: 240_000,
          environment: 'nuxt',
          environmentOptions: { nuxt: { domEnvironment: 'happy-dom', url: 'http://localhost:3000/desk/sign-in' } },
        },
      }),
    ],
  },
})
