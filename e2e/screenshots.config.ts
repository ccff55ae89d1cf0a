import base from '../playwright.config'

/** Takes the pictures in docs/screenshots from the demo's data. */
export default { ...base, testDir: '.', testMatch: 'screenshots.ts', globalSetup: './support/globalSetup.ts', reporter: 'list' }
