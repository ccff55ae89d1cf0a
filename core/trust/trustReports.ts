import { z } from 'zod'
import type { Family } from '../files/mediaType'

/** What can be wrong with the bytes of a file in the store. */
export type Trouble = 'missing' | 'damaged'

/** Something wrong with stored bytes. */
export interface StoreFinding {
  /** `missing`: a record without bytes; `damaged`: bytes other than their checksum says; `stray`: bytes without a record */
  kind: 'missing' | 'damaged' | 'stray'
  sha256: string
  /** bytes, as recorded, or found where nothing is recorded */
  size: number
  /** titles of the files whose editions need them */
  files: { id: string; title: string; edition: number }[]
  /** what was done about it; null where nothing could be */
  mended: 'fetched from the backup' | 'set aside' | null
}

/** How far reading every stored byte again is, and what it found. */
export interface VerifyState {
  state: 'never' | 'running' | 'done' | 'failed' | 'stopped'
  /** blobs */
  done: number
  total: number
  /** bytes read */
  bytes: number
  /** ISO 8601 */
  started: string | null
  finished: string | null
  error: string | null
  findings: StoreFinding[]
  /** what is wrong with the database, a sentence each; missing where an earlier version looked */
  database?: string[]
}

export const verifyRequestSchema = z.object({
  /** a backup folder from which missing and damaged bytes are fetched */
  from: z.string().max(1000).optional(),
})

const DAYS = [1, 3650] as const

/** What is cleaned away by itself. */
export const cleaningSchema = z.object({
  /** days a deleted file stays in the bin */
  binDays: z.number().int().min(DAYS[0], 'Keep it at least a day.').max(DAYS[1], 'Keep it to ten years.').default(30),
  /** earlier editions that are kept of each file; null keeps all */
  keepEditions: z.number().int().min(0).max(1000).nullable().default(null),
  /** earlier editions younger than this are kept in any case */
  editionDays: z.number().int().min(0).max(DAYS[1], 'Keep it to ten years.').default(365),
})
export type Cleaning = z.infer<typeof cleaningSchema>

/** What cleaning by some rules would free. */
export interface Freed {
  editions: number
  binned: number
  /** bytes no longer needed by anything */
  bytes: number
}

/** Where the space goes. */
export interface StorageUse {
  /** bytes on the disk, each once */
  stored: number
  /** bytes that can still be written */
  free: number
  /** what the same files would take without sharing their bytes */
  unshared: number
  kinds: { family: Family; files: number; bytes: number }[]
  /** with all that lies below each; null is the top of the library alone */
  folders: { folder: string | null; files: number; bytes: number }[]
  /** earlier and waiting editions */
  otherEditions: { count: number; bytes: number }
  bin: { files: number; bytes: number }
}
