import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { build } from 'esbuild'
import { newId } from '../../core/id'
import { ROOT } from '../root'
import { note, type Ledger, type Word } from './ledger'

/** Builds the program that is killed; gives its path, beside the packages it needs. Who asked for it removes it. */
export async function buildVictim(): Promise<string> {
  const path = join(ROOT, `node_modules/.trough-victim-${newId()}.mjs`)
  await build({
    entryPoints: [join(ROOT, 'server/testing/victim.ts')],
    outfile: path,
    bundle: true,
    packages: 'external',
    platform: 'node',
    target: 'node20',
    format: 'esm',
    define: { 'process.env.TROUGH_ROOT': JSON.stringify(ROOT) },
  })
  return path
}

interface Life {
  victim: string
  data: string
  backup: string
  /** a folder for what it is told */
  scratch: string
  ledger: Ledger
  /** milliseconds it lives after its check; longer where a file is yet to be acknowledged */
  milliseconds: number
  /** ends it when that time is over */
  end?: (child: ChildProcess) => Promise<void> | void
  /** ends it as soon as it has made a backup */
  untilBackup?: boolean
}

const kill = (child: ChildProcess) => void child.kill('SIGKILL')

/** Lets a victim live for a while after its check; what it acknowledges is noted in the ledger. */
export async function live({
  victim,
  data,
  backup,
  scratch,
  ledger,
  milliseconds,
  end = kill,
  untilBackup = false,
}: Life): Promise<{ checked: string[]; backups: number }> {
  const ledgerPath = join(scratch, 'ledger.json')
  await writeFile(ledgerPath, JSON.stringify(ledger))
  const child = spawn('node', [victim, data, ledgerPath, backup], { stdio: ['ignore', 'pipe', 'pipe'] })
  let errors = ''
  child.stderr.on('data', (chunk: Buffer) => (errors += chunk))
  const exited = once(child, 'exit')
  let checked: string[] | undefined
  let ending: Promise<void> | undefined
  let [over, acted, backups] = [false, false, 0]
  let timer: NodeJS.Timeout | undefined
  // A life in which nothing was done would show nothing, however slow the machine.
  const endIfDue = () => {
    if (over && acted) ending ??= Promise.resolve(end(child))
  }
  for await (const line of createInterface({ input: child.stdout })) {
    // The last line may have been cut by the kill.
    if (!line.endsWith('}')) continue
    const word = JSON.parse(line) as Word
    if ('checked' in word) {
      checked = word.checked
      // What may have been is now known.
      timer = setTimeout(() => {
        over = true
        endIfDue()
      }, milliseconds)
    } else if ('backedUp' in word) {
      backups++
      if (untilBackup) kill(child)
    } else {
      note(ledger, word)
      acted ||= 'done' in word
      endIfDue()
    }
  }
  clearTimeout(timer)
  const [code] = (await exited) as [number | null]
  await ending
  // Killed, it has no exit code; one means that it failed.
  return { checked: code === null && checked ? checked : [`It ended by itself: ${errors}`], backups }
}
