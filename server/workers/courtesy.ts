import { readlinkSync } from 'node:fs'
import { setPriority } from 'node:os'
import { basename } from 'node:path'

/** Visitors and the desk come first. On Linux a priority holds for one thread (sched(7)). */
export function comeAfterVisitors(): void {
  if (process.platform === 'linux') setPriority(Number(basename(readlinkSync('/proc/thread-self'))), 10)
}
