import { z } from 'zod'
import { familySchema } from '../files/mediaType'

/** What can be wrong with the bytes of a file in the store. */
export type Trouble = 'missing' | 'damaged'

/** Something wrong with stored bytes. */
export const storeFindingSchema = z.object({
  /** `missing`: a record without bytes; `damaged`: bytes other than their checksum says; `stray`: bytes without a record */
  kind: z.enum(['missing', 'damaged', 'stray']),
  sha256: z.string(),
  /** bytes, as recorded, or found where nothing is recorded */
  size: z.number(),
  /** titles of the files whose editions need them */
  files: z.array(z.object({ id: z.string(), title: z.string(), edition: z.number() })),
  /** what was done about it; null where nothing could be */
  mended: z.enum(['fetched from the backup', 'set aside']).nullable(),
})
export type StoreFinding = z.infer<typeof storeFindingSchema>

/** How far reading every stored byte again is, and what it found. */
export const verifyStateSchema = z.object({
  state: z.enum(['never', 'running', 'done', 'failed', 'stopped']),
  /** blobs */
  done: z.number(),
  total: z.number(),
  /** bytes read */
  bytes: z.number(),
  /** ISO 8601 */
  started: z.string().nullable(),
  finished: z.string().nullable(),
  error: z.string().nullable(),
  findings: z.array(storeFindingSchema),
  /** what is wrong with the database, a sentence each; missing where an earlier version looked */
  database: z.array(z.string()).optional(),
})
export type VerifyState = z.infer<typeof verifyStateSchema>

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
export const freedSchema = z.object({
  editions: z.number(),
  binned: z.number(),
  /** bytes no longer needed by anything */
  bytes: z.number(),
})
export type Freed = z.infer<typeof freedSchema>

/** Where the space goes. */
export const storageUseSchema = z.object({
  /** bytes on the disk, each once */
  stored: z.number(),
  /** bytes that can still be written */
  free: z.number(),
  /** what the same files would take without sharing their bytes */
  unshared: z.number(),
  kinds: z.array(z.object({ family: familySchema, files: z.number(), bytes: z.number() })),
  /** with all that lies below each; null is the top of the library alone */
  folders: z.array(z.object({ folder: z.string().nullable(), files: z.number(), bytes: z.number() })),
  /** earlier and waiting editions */
  otherEditions: z.object({ count: z.number(), bytes: z.number() }),
  bin: z.object({ files: z.number(), bytes: z.number() }),
})
export type StorageUse = z.infer<typeof storageUseSchema>
