import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs'
import { getPriority, setPriority, tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { ROOT, ensureBuilt, ensureCommands, ensureInstalled } from './prepare.mjs'

const REPORTS = join(ROOT, 'test-results')
let passed = 0
let failed = 0
/** What is to be read first, told again at the end. */
const troubles = []
/** How long each step and each test took, in seconds. */
const times = { steps: [], tests: [] }
/** "npm test -- quick": what a change is tried with while it is made; the whole is asked before it is handed in. */
const quick = process.argv.includes('quick')

/**
 * A folder for what tests write: in memory where there is room, since copying a database of a thousand small files takes a second on a
 * disk.
 */
function scratchFolder() {
  const memory = '/dev/shm'
  const space = existsSync(memory) && statfsSync(memory)
  const folder = mkdtempSync(join(space && space.bavail * space.bsize > 6 * 2 ** 30 ? memory : tmpdir(), 'trough-tests-'))
  // The server of PostgreSQL runs as a user of its own, and has its folder in this one.
  chmodSync(folder, 0o711)
  return folder
}

/** Runs one step; it counts as one test, or as what its report says. */
async function step(name, command, args, { readReport, beside = false } = {}) {
  const began = performance.now()
  if (!beside) console.log(`\n== ${name}`)
  const child = spawn(command, args, { cwd: ROOT, stdio: ['inherit', ...(beside ? ['pipe', 'pipe'] : ['inherit', 'inherit'])] })
  let output = ''
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', chunk => (output += chunk))
  const [status] = await once(child, 'close')
  times.steps.push([name, (performance.now() - began) / 1000])
  // What ran beside another step is told when it has ended, so that the two do not mix.
  if (beside) console.log(`\n== ${name}\n${output}`)
  let counts = status === 0 ? [1, 0] : [0, 1]
  if (readReport) {
    try {
      counts = readReport()
    } catch (error) {
      console.error(`${name} left no report: ${error.message}`)
      counts = [0, 1]
    }
  }
  // A runner may fail without a failed test, as when a file does not load.
  if (status !== 0 && counts[1] === 0) counts[1] = 1
  if (counts[1] && !troubles.some(trouble => trouble.startsWith(name))) troubles.push(`${name}: failed (exit ${status})`)
  passed += counts[0]
  failed += counts[1]
}

/** Every test of Playwright's report, however deep its groups. */
const specsOf = suite => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)]

const report = name => JSON.parse(readFileSync(join(REPORTS, name), 'utf8'))

// What Trough's workers do comes after what others of the machine do (`server/workers/courtesy.ts`): beside browsers that came first, a
// reader would wait for minutes. All of the tests come as late as they do.
if (getPriority() < 10) setPriority(10)

ensureInstalled()
ensureCommands(
  {
    'chromium-headless-shell': 'chromium-headless-shell',
    'curl': 'curl',
    'unzip': 'unzip',
    'qpdf': 'qpdf',
    'pdftotext': 'poppler-utils',
    'python3': 'python3',
    'aria2c': 'aria2',
    'goaccess': 'goaccess',
    'nginx': 'nginx-light',
    'faketime': 'faketime',
    'file': 'file',
    'smtpd': 'opensmtpd',
    'mmdblookup': 'mmdb-bin',
  },
  {
    '/usr/lib/python3/dist-packages/prometheus_client': 'python3-prometheus-client',
    '/usr/lib/postgresql/15/bin/initdb': 'postgresql-15',
    // Real documents that readers are held against.
    '/usr/share/doc/bzip2/manual.pdf.gz': 'bzip2-doc',
    '/usr/share/doc/libtasn1-doc/libtasn1.pdf': 'libtasn1-doc',
    '/usr/bin/7z': 'p7zip-full',
    '/usr/bin/heif-enc': 'libheif-examples',
    '/usr/bin/xz': 'xz-utils',
    '/usr/bin/bzip2': 'bzip2',
    '/usr/share/doc/shared-mime-info/shared-mime-info-spec.pdf': 'shared-mime-info',
  },
)
rmSync(REPORTS, { recursive: true, force: true })
mkdirSync(REPORTS, { recursive: true })

const scratch = scratchFolder()
process.env.TMPDIR = scratch
process.env.TROUGH_DEMO_TEMPLATE = join(scratch, 'demo')
process.env.TROUGH_UNHANDLED = join(REPORTS, 'unhandled.json')
if (quick) process.env.TROUGH_TEST_QUICK = 'yes'

const types = ['Types', 'npx', ['vue-tsc', '--noEmit']]

const unitTests = () =>
  step(
    'Unit tests',
    'npx',
    [
      'vitest',
      'run',
      ...(quick ? ['--project', 'pglite', '--project', 'desk'] : []),
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${join(REPORTS, 'unit.json')}`,
      `--reporter=${join(ROOT, 'scripts/unhandled.mjs')}`,
    ],
    {
      readReport: () => {
        const { numPassedTests, numFailedTests, testResults } = report('unit.json')
        for (const file of testResults) {
          times.tests.push(
            ...file.assertionResults.map(test => [`${relative(ROOT, file.name)}: ${test.title}`, (test.duration ?? 0) / 1000]),
          )
          const names = file.assertionResults
            .filter(test => test.status === 'failed')
            .map(test => `${test.fullName}: ${test.failureMessages[0]?.split('\n')[0]}`)
          if (file.status === 'failed' && !names.length) names.push(file.message)
          troubles.push(...names.map(name => `Unit tests: ${relative(ROOT, file.name)}: ${name}`))
        }
        troubles.push(...report('unhandled.json').map(told => `Unit tests: what no test failed with: ${told}`))
        return [numPassedTests, numFailedTests]
      },
    },
  )

const endToEnd = () =>
  step('End to end', 'npx', ['playwright', 'test'], {
    readReport: () => {
      const {
        suites,
        stats: { expected, unexpected },
      } = report('e2e.json')
      for (const spec of suites.flatMap(specsOf)) {
        const { status, results } = spec.tests[0]
        times.tests.push([`${spec.file}: ${spec.title}`, results.reduce((sum, result) => sum + result.duration, 0) / 1000])
        if (status === 'unexpected') troubles.push(`End to end: ${spec.file}: ${spec.title}: failed`)
      }
      return [expected, unexpected]
    },
  })

function build() {
  console.log('\n== Build')
  const began = performance.now()
  ensureBuilt()
  times.steps.push(['Build', (performance.now() - began) / 1000])
  passed++
}

await step('Prepare types', 'npx', ['nuxt', 'prepare', '--logLevel=silent'])
if (quick) {
  const checked = step(...types, { beside: true })
  await unitTests()
  await checked
} else {
  const linted = step('Lint', 'npx', ['eslint', '.'], { beside: true })
  await step(...types)
  await step('Format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.'])
  await step('Demo data', 'node', ['--import', 'tsx', 'demo/build.ts', process.env.TROUGH_DEMO_TEMPLATE])
  // Each of these keeps one core at work, as the linter does beside them.
  build()
  await linted
  await unitTests()
  await endToEnd()
}
try {
  rmSync(scratch, { recursive: true, force: true })
} catch (error) {
  // What a test that failed left behind is no reason to keep the rest to oneself.
  console.error(`${scratch} could not be removed: ${error.message}`)
}

const seconds = value => `${value.toFixed(1).padStart(7)} s`
console.log('\nHow long it took')
for (const [name, took] of times.steps) console.log(`${seconds(took)}  ${name}`)
console.log('\nThe slowest tests')
for (const [name, took] of times.tests.sort(([, one], [, other]) => other - one).slice(0, 20)) console.log(`${seconds(took)}  ${name}`)
if (troubles.length) console.log(`\n${troubles.join('\n')}`)
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
