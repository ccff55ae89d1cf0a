import { readlinkSync } from 'node:fs'
import { getPriority, setPriority } from 'node:os'
import { basename } from 'node:path'

/**
 * Visitors and the desk come first. On Linux a priority holds for one thread (sched(7)).
 *
 * @param by how far behind: with 10 next to nothing is left where others keep the machine busy
 */
export function comeAfterVisitors(by = 10): void {
  if (process.platform !== 'linux') return
  // Where Trough itself was started behind others (nice(1)), nobody but the system's own may come forward again.
  setPriority(Number(basename(readlinkSync('/proc/thread-self'))), Math.max(by, getPriority()))
}
