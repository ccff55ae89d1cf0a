import { Problem } from './problem'

/** What the system says where there is no room (POSIX: no space, quota used up), and PostgreSQL (SQLSTATE 53100, disk_full). */
const CODES = new Set(['ENOSPC', 'EDQUOT', '53100'])

/** Whether an error, or what caused it, is that the disk is full. */
export function isDiskFull(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) if (CODES.has((at as NodeJS.ErrnoException).code ?? '')) return true
  return false
}

/** @param where the folder on the disk that is full; left out where that is not known */
export const diskFull = (where?: string): Problem =>
  new Problem(
    507,
    'The disk is full.',
    `Free some space on the disk${where ? ` with ${where}` : ''}, or delete files of the bin for good, then try again. Nothing in the library was touched.`,
  )
