import { spawn } from 'node:child_process'
import { CAGE, type Programs } from '../../../core/files/programs'

interface Limits {
  /** the one folder it may write to */
  folder: string
  /** the file it is to read */
  file: string
  /** seconds until it is ended */
  seconds: number
  /** bytes of memory, and of any file it writes */
  memory: number
  largest: number
}

/** It ends with this process, sees programs, its file and its folder, can write to that alone, and has no network. */
const caged = (cage: string, { folder, file }: Limits): string[] => [
  cage,
  ...CAGE,
  ...['--ro-bind', file, file, '--bind', folder, folder, '--chdir', folder],
  ...['--unshare-all', '--die-with-parent', '--new-session', '--'],
]

/** Soft and hard limits of the kernel (prlimit(1), of util-linux). */
const limited = ({ seconds, memory, largest }: Limits): string[] => [
  'prlimit',
  `--as=${memory}`,
  `--cpu=${seconds}`,
  `--fsize=${largest}`,
  '--core=0',
  '--',
]

/** Says too much; what comes after is not kept. */
const MOST_SAID = 2000

/**
 * Runs a program on one file, limited in time, memory and disk, in a cage where the machine has one; what it started goes with it.
 *
 * @throws Error in a few words where it fails, or takes too long
 */
export function runLimited({ cage }: Programs, command: string, args: string[], limits: Limits): Promise<void> {
  const [program, ...rest] = [...limited(limits), ...(cage ? caged(cage, limits) : []), command, ...args]
  return new Promise((resolve, reject) => {
    // Nothing of Trough's own environment is its business; addresses it might ask lead nowhere.
    const nowhere = 'http://127.0.0.1:9'
    const child = spawn(program!, rest, {
      cwd: limits.folder,
      env: {
        PATH: process.env.PATH,
        HOME: limits.folder,
        TMPDIR: limits.folder,
        LANG: 'C.UTF-8',
        http_proxy: nowhere,
        https_proxy: nowhere,
      },
      stdio: ['ignore', 'ignore', 'pipe'],
      detached: true,
    })
    let said = ''
    let late = false
    const end = () => {
      try {
        // The whole group: it may have started others.
        process.kill(-child.pid!, 'SIGKILL')
      } catch {
        // They are gone already.
      }
    }
    const timer = setTimeout(() => {
      late = true
      end()
    }, limits.seconds * 1000)
    child.stderr.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(0, MOST_SAID)))
    child.on('error', error => {
      clearTimeout(timer)
      reject(error)
    })
    // What it left behind would hold its pipe open.
    child.on('exit', end)
    child.on('close', (code, signal) => {
      clearTimeout(timer)
      if (late) reject(new Error(`it took longer than ${limits.seconds} seconds`))
      else if (code) reject(new Error(said.trim().split('\n')[0] || `it ended with ${code}`))
      else if (signal) reject(new Error(`it was ended by ${signal}`))
      else resolve()
    })
  })
}
