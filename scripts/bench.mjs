import { ensureBuilt, ensureCommands, ensureInstalled, run } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
ensureCommands({ nginx: 'nginx-light', wrk: 'wrk', curl: 'curl', chromium: 'chromium', pdftotext: 'poppler-utils' })
// One part alone by its name: npm run bench library
const asked = process.argv.slice(2)
for (const part of asked.length ? asked : ['delivery', 'bundles', 'library']) run('node', '--import', 'tsx', `bench/${part}.ts`)
