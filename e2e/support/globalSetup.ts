import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** Builds the demo's data folder once, unless that was done before; each test file serves a copy of it. */
export default function setup() {
  if (process.env.TROUGH_DEMO_TEMPLATE) return
  const folder = mkdtempSync(join(tmpdir(), 'trough-e2e-'))
  process.env.TROUGH_DEMO_TEMPLATE = join(folder, 'demo')
  execFileSync('node', ['--import', 'tsx', 'demo/build.ts', process.env.TROUGH_DEMO_TEMPLATE], { stdio: 'inherit' })
  return () => rmSync(folder, { recursive: true, force: true })
}
