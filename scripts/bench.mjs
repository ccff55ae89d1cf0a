import { ensureBuilt, ensureCommands, ensureInstalled, run } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
ensureCommands({ nginx: 'nginx-light', wrk: 'wrk', curl: 'curl' })
run('node', '--import', 'tsx', 'bench/bench.ts')
