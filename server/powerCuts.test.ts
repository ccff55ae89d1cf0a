import { execFileSync, type ChildProcess } from 'node:child_process'
import { cp, mkdir, mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, expect, inject, it } from 'vitest'
import { emptyLedger } from './testing/ledger'
import { buildVictim, live } from './testing/victims'

/** `TROUGH_CUTS=30` takes some two minutes. */
const ROUNDS = Number(process.env.TROUGH_CUTS ?? 4)

const run = (command: string, ...args: string[]) => execFileSync(command, args, { stdio: ['ignore', 'ignore', 'inherit'] })

let folder: string
let victim: string
let mounted = false
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-power-'))
  await mkdir(join(folder, 'disk'))
  victim = await buildVictim()
  run('truncate', '-s', '900M', join(folder, 'image'))
  run('mkfs.ext4', '-q', '-F', join(folder, 'image'))
  mount()
  await cp(inject('template'), join(folder, 'disk/data'), { recursive: true })
  run('sync')
})
afterAll(async () => {
  unmount()
  await rm(folder, { recursive: true, force: true })
  await rm(victim, { force: true })
})

function mount(): void {
  // What nobody asked to be on the disk stays in memory for minutes, as it may on any machine: a cut takes it.
  run('mount', '-o', 'loop,commit=300', join(folder, 'image'), join(folder, 'disk'))
  mounted = true
}

function unmount(): void {
  if (mounted) run('umount', join(folder, 'disk'))
  mounted = false
}

/** Takes the disk as it is beneath the system's memory, and ends the process: what a machine finds that lost its power just then. */
async function cut(child: ChildProcess): Promise<void> {
  child.kill('SIGSTOP')
  // What it was just writing through is written; what it has said until now is heard.
  await wait(150)
  run('cp', '--sparse=always', join(folder, 'image'), join(folder, 'found'))
  child.kill('SIGKILL')
}

it(
  `of ${ROUNDS} power cuts while files come in, are replaced and deleted and pages are published, none takes what was acknowledged, and Trough starts after each`,
  { timeout: 15 * 60 * 1000 },
  async () => {
    const ledger = emptyLedger()
    for (let round = 0; round < ROUNDS; round++) {
      const { checked } = await live({
        victim,
        data: join(folder, 'disk/data'),
        backup: join(folder, 'disk/backup'),
        scratch: folder,
        ledger,
        milliseconds: 800 + Math.random() * 2500,
        end: cut,
      })
      expect(checked, `round ${round}`).toEqual([])
      unmount()
      run('mv', join(folder, 'found'), join(folder, 'image'))
      mount()
    }
    const { checked } = await live({
      victim,
      data: join(folder, 'disk/data'),
      backup: join(folder, 'disk/backup'),
      scratch: folder,
      ledger,
      milliseconds: 0,
    })
    expect(checked).toEqual([])
    // However slow the machine, something was acknowledged and held.
    expect(Object.keys(ledger.files).length).toBeGreaterThan(0)
  },
)
