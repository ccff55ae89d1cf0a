import { cp, mkdtemp, readdir, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, inject, it } from 'vitest'
import { restoreBackup } from './services/trust/backup'
import { createHashing } from './services/trust/hashing'
import { emptyLedger, type Ledger } from './testing/ledger'
import { buildVictim, live } from './testing/victims'
import { openTrough } from './trough'

/** `TROUGH_KILLS=100` takes some six minutes. */
const ROUNDS = Number(process.env.TROUGH_KILLS ?? 6)

let folder: string
let victim: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-faults-'))
  await cp(inject('template'), join(folder, 'data'), { recursive: true })
  victim = await buildVictim()
})
afterAll(async () => {
  await rm(folder, { recursive: true, force: true })
  await rm(victim, { force: true })
})

const liveFor = (ledger: Ledger, milliseconds: number, untilBackup = false) =>
  live({ victim, data: join(folder, 'data'), backup: join(folder, 'backup'), scratch: folder, ledger, milliseconds, untilBackup })

it(
  `killed ${ROUNDS} times at random while uploading, replacing (one file, and one everywhere), deleting, publishing, backing up and doing what was set for a time, it has all that it acknowledged, byte for byte`,
  { timeout: 15 * 60 * 1000 },
  async () => {
    const ledger = emptyLedger()
    let backups = 0
    for (let round = 0; round < ROUNDS; round++) {
      // Some live long enough to end a backup.
      const outcome = await liveFor(ledger, round % 8 ? Math.random() * 900 : 1500 + Math.random() * 4000)
      expect(outcome.checked, `round ${round}`).toEqual([])
      backups += outcome.backups
    }
    // However slow the machine: one backup at least has come to its end, beside all else that goes on there.
    const last = await liveFor(ledger, 8 * 60_000, true)
    expect(last.checked).toEqual([])
    expect((await liveFor(ledger, 0)).checked).toEqual([])
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
  },
)
