import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT, ensureBuilt, ensureCommands, ensureInstalled } from './prepare.mjs'

const REPORTS = join(ROOT, 'test-results')
let passed = 0
let failed = 0

/** Runs one step; it counts as one test, or as what its report says. */
function step(name, command, args, readReport) {
  console.log(`\n== ${name}`)
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit' })
  let counts = status === 0 ? [1, 0] : [0, 1]
  if (readReport) {
    try {
      counts = readReport()
      // A runner may fail without a failed test, as when a file does not load.
      if (status !== 0 && counts[1] === 0) counts[1] = 1
    }
    catch (error) {
      console.error(`${name} left no report: ${error.message}`)
      counts = [0, 1]
    }
  }
  passed += counts[0]
  failed += counts[1]
}

const report = name => JSON.parse(readFileSync(join(REPORTS, name), 'utf8'))

ensureInstalled()
ensureCommands(
  { chromium: 'chromium', curl: 'curl', unzip: 'unzip', qpdf: 'qpdf', pdftotext: 'poppler-utils', python3: 'python3', aria2c: 'aria2', nginx: 'nginx-light', faketime: 'faketime' },
  { '/usr/lib/python3/dist-packages/prometheus_client': 'python3-prometheus-client' },
)
rmSync(REPORTS, { recursive: true, force: true })
mkdirSync(REPORTS, { recursive: true })

step('Prepare types', 'npx', ['nuxt', 'prepare', '--logLevel=silent'])
step('Lint', 'npx', ['eslint', '.'])
step('Types', 'npx', ['vue-tsc', '-b', '--noEmit'])
step('Unit tests', 'npx', ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${join(REPORTS, 'unit.json')}`], () => {
  const { numPassedTests, numFailedTests } = report('unit.json')
  return [numPassedTests, numFailedTests]
})
console.log('\n== Build')
ensureBuilt()
passed++
step('End to end', 'npx', ['playwright', 'test'], () => {
  const { expected, unexpected, flaky } = report('e2e.json').stats
  return [expected + flaky, unexpected]
})

console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
