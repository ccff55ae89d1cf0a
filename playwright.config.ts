import { defineConfig } from '@playwright/test'

/** The name of an ordinary browser: headless ones are counted as robots. */
export const VISITOR = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36'

// The database's code is compiled once, not again for speed that a minute of tests would never win back: a third of a start's work.
// Measurements do without.
process.env.TROUGH_TEST_NODE_FLAGS = '--liftoff-only'

export default defineConfig({
  testDir: './e2e',
  globalSetup: './e2e/support/globalSetup.ts',
  outputDir: './test-results/e2e',
  reporter: [['list'], ['json', { outputFile: './test-results/e2e.json' }]],
  // A test waits for half of its time: four at once keep two cores at work. A browser that is slowed down keeps one busy by that alone.
  workers: process.env.TROUGH_TEST_SLOW ? 1 : 4,
  // Long enough for a machine that has other work to do: no test waits for its end.
  timeout: 240_000,
  expect: { timeout: 90_000 },
  use: {
    viewport: { width: 1280, height: 800 },
    userAgent: VISITOR,
    // Nothing moves by itself: a click need not wait for what glides into place.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      // The browser without its windows: tests take a third less than in the whole one.
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // Drawing and fetching in the browser's own process: two processes fewer to talk to.
        '--in-process-gpu',
        '--enable-features=NetworkServiceInProcess2',
        // No page draws in three dimensions. What would, sets VK_ICD_FILENAMES as the browser starts, in this one process, while fonts
        // are read by another thread that asks for variables: setenv(3) is not safe beside getenv(3), and the browser died of it.
        '--disable-software-rasterizer',
      ],
    },
    screenshot: 'only-on-failure',
  },
})
