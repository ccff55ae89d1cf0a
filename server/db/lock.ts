import { readFile, rename, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'

interface Holder { pid: number, started: string }

/** What the system says of a process behind its name: its state first (proc(5), /proc/pid/stat); nothing where it does not say. */
async function statOf(pid: number): Promise<string[]> {
  const stat = await readFile(`/proc/${pid}/stat`, 'utf8').catch(() => '')
  return stat.slice(stat.lastIndexOf(')') + 2).split(' ')
}

/** When a process started, in clock ticks since boot, so that a reused number is not taken for it; '' where unknown. */
const startOf = async (pid: number): Promise<string> => (await statOf(pid))[19] ?? ''

/** Whether a process has ended and only waits for its parent to take note. */
const isZombie = async (pid: number): Promise<boolean> => (await statOf(pid))[0] === 'Z'

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  }
  catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}

/** The process that holds the lock and still lives. */
async function liveHolder(text: string): Promise<Holder | undefined> {
  const [pid = 0, started = ''] = text.trim().split(' ').map((part, index) => index ? part : Number(part)) as [number, string]
  // A lock of this very process number is left over from before a restart (containers reuse 1).
  const alive = Number.isInteger(pid) && pid > 0 && isRunning(pid) && !await isZombie(pid) && (!started || started === await startOf(pid))
  return alive ? { pid, started } : undefined
}

/**
 * Takes the data folder for this process alone; PGlite would let a second one in and lose data.
 *
 * @returns gives it back
 * @throws Error with a message for the console where another process has it
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const path = join(folder, 'lock')
  const mine = `${process.pid} ${await startOf(process.pid)}\n`
  for (let attempt = 0; attempt < 5; attempt++) {
    try {
      await writeFile(path, mine, { flag: 'wx', mode: 0o600 })
      return () => rm(path, { force: true })
    }
    catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
    }
    const text = await readFile(path, 'utf8').catch(() => '')
    const holder = await liveHolder(text)
    if (holder) {
      throw new Error(`The data folder ${folder} is in use by process ${holder.pid}. Stop that one first, or set TROUGH_DATA to another folder.`)
    }
    // Moved aside rather than removed: only one of two starting processes can move the same file.
    const aside = `${path}.${process.pid}`
    await rename(path, aside).then(() => rm(aside, { force: true }), (error: NodeJS.ErrnoException) => {
      if (error.code !== 'ENOENT') throw error
    })
  }
  throw new Error(`The lock ${path} could not be taken. If no Trough is running on this folder, remove that file and start again.`)
}
