import { spawnSync } from 'node:child_process'
import { ROOT, ensureBuilt, ensureInstalled } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
const { status } = spawnSync('node', ['--import', 'tsx', 'server/cli.ts', ...process.argv.slice(2)], { cwd: ROOT, stdio: 'inherit' })
process.exit(status ?? 1)
