import { ensureBuilt, ensureCommands, ensureInstalled, run } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
ensureCommands({ 'chromium-headless-shell': 'chromium-headless-shell' })
run('npx', 'playwright', 'test', '--config', 'e2e/screenshots.config.ts')
