import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { cp, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { build } from 'esbuild'
import { afterAll, beforeAll, expect, inject, it } from 'vitest'
import { ROOT } from './root'
import { restoreBackup } from './services/trust/backup'
import { createHashing } from './services/trust/hashing'
import { emptyLedger, note, type Ledger, type Word } from './testing/ledger'
import { openTrough } from './trough'

/** `TROUGH_KILLS=100` takes some six minutes. */
const ROUNDS = Number(process.env.TROUGH_KILLS ?? 6)

let folder: string
let victim: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-faults-'))
  await cp(inject('template'), join(folder, 'data'), { recursive: true })
  // Beside the build, so that it finds the packages it needs.
  victim = join(ROOT, 'node_modules/.trough-victim.mjs')
  await build({ entryPoints: [join(ROOT, 'server/testing/victim.ts')], outfile: victim, bundle: true, packages: 'external', platform: 'node', target: 'node20', format: 'esm', define: { 'process.env.TROUGH_ROOT': JSON.stringify(ROOT) } })
})
afterAll(() => rm(folder, { recursive: true, force: true }))

/** Lets a victim live for a while after its check; if asked, no longer than until it has made a backup. */
async function live(ledger: Ledger, milliseconds: number, untilBackup = false): Promise<{ checked: string[], backups: number }> {
  const ledgerPath = join(folder, 'ledger.json')
  await writeFile(ledgerPath, JSON.stringify(ledger))
  const child = spawn('node', [victim, join(folder, 'data'), ledgerPath, join(folder, 'backup')], { stdio: ['ignore', 'pipe', 'pipe'] })
  let errors = ''
  child.stderr.on('data', (chunk: Buffer) => errors += chunk)
  const exited = once(child, 'exit')
  let checked: string[] | undefined
  let backups = 0
  for await (const line of createInterface({ input: child.stdout })) {
    // The last line may have been cut by the kill.
    if (!line.endsWith('}')) continue
    const word = JSON.parse(line) as Word
    if ('checked' in word) {
      checked = word.checked
      // What may have been is now known.
      setTimeout(() => child.kill('SIGKILL'), milliseconds)
    }
    else if ('backedUp' in word) {
      backups++
      if (untilBackup) child.kill('SIGKILL')
    }
    else note(ledger, word)
  }
  const [code] = await exited as [number | null]
  // Killed, it has no exit code; one means that it failed.
  return { checked: code === null && checked ? checked : [`It ended by itself: ${errors}`], backups }
}

it(`killed ${ROUNDS} times at random while uploading, replacing (one file, and one everywhere), deleting, publishing, backing up and doing what was set for a time, it has all that it acknowledged, byte for byte`, { timeout: 15 * 60 * 1000 }, async () => {
  const ledger = emptyLedger()
  let backups = 0
  for (let round = 0; round < ROUNDS; round++) {
    // Some live long enough to end a backup.
    const outcome = await live(ledger, round % 8 ? Math.random() * 900 : 1500 + Math.random() * 4000)
    expect(outcome.checked, `round ${round}`).toEqual([])
    backups += outcome.backups
  }
  // However slow the machine: one backup at least has come to its end, beside all else that goes on there.
  const last = await live(ledger, 8 * 60_000, true)
  expect(last.checked).toEqual([])
  expect((await live(ledger, 0)).checked).toEqual([])
  expect(Object.keys(ledger.files).length).toBeGreaterThan(ROUNDS / 5)
  expect(backups + last.backups).toBeGreaterThan(0)

  const hashing = createHashing()
  const restored = join(folder, 'restored')
  expect((await restoreBackup(join(folder, 'backup'), restored, hashing).finally(() => hashing.close())).lost).toEqual([])
  const trough = await openTrough({ data: restored })
  await trough.verifying.start()
  await trough.verifying.ended()
  // Bytes that came in just after the database was copied are there without a record, and set aside.
  expect((await trough.verifying.state()).findings.filter(finding => finding.kind !== 'stray')).toEqual([])
  await trough.close()
  // Nothing half made is left in the way of what comes in.
  const cleaned = await openTrough({ data: join(folder, 'data') })
  await cleaned.resume()
  await cleaned.close()
  expect((await readdir(join(folder, 'data/incoming'))).filter(name => name.endsWith('.part'))).toEqual([])
})
