import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '')
const SOURCES = ['app', 'core', 'server', 'modules', 'public', 'nuxt.config.ts', 'vuetify.config.ts', 'package-lock.json']

process.env.NUXT_TELEMETRY_DISABLED = '1'

/** Runs a command in the project's folder, its output shown; throws where it fails. */
export function run(command, ...args) {
  execFileSync(command, args, { cwd: ROOT, stdio: 'inherit' })
}

function* filesUnder(path) {
  if (statSync(path).isFile()) yield path
  else for (const name of readdirSync(path).sort()) yield* filesUnder(join(path, name))
}

function hashOf(paths) {
  // The build writes absolute paths: moved to another folder, it has to be made again.
  const hash = createHash('sha256').update(ROOT)
  for (const path of paths) {
    for (const file of filesUnder(join(ROOT, path))) if (!file.endsWith('.test.ts')) hash.update(file).update(readFileSync(file))
  }
  return hash.digest('hex')
}

/** Does the work unless a stamp says that it was done for just these sources. */
function unlessDone(stamp, hash, work) {
  const path = join(ROOT, stamp)
  if (existsSync(path) && readFileSync(path, 'utf8') === hash) return
  work()
  writeFileSync(path, hash)
}

/** Installs the packages the lock file names. */
export function ensureInstalled() {
  unlessDone('node_modules/.trough-installed', hashOf(['package-lock.json']), () => {
    console.log('Installing what Trough needs. The first time takes a few minutes…')
    // Not `npm ci`: it refuses a lock file that a registry without every platform's binaries has written.
    run('npm', 'install', '--no-save', '--no-fund', '--no-audit', '--loglevel=error')
  })
}

/** Builds where the sources changed. */
export function ensureBuilt() {
  unlessDone('.output/.trough-built', hashOf(SOURCES), () => {
    console.log('Building…')
    run('npx', 'nuxt', 'build', '--logLevel=silent')
  })
}

/** Installs Debian packages where a command of theirs, or another file, is missing. */
export function ensureCommands(commands, files = {}) {
  const missing = [
    ...Object.entries(commands).filter(([command]) => spawnSync('which', [command]).status !== 0),
    ...Object.entries(files).filter(([path]) => !existsSync(path)),
  ].map(([, name]) => name)
  if (!missing.length) return
  console.log(`Installing ${missing.join(', ')}…`)
  run('apt-get', 'update', '-qq')
  run('apt-get', 'install', '-y', '-qq', '--no-install-recommends', ...missing)
}
