import { z } from 'zod'
/** What became of one thing a job dealt with. */
export const jobLineSchema = z.object({
  name: z.string(),
  outcome: z.enum(['made', 'edition', 'skipped', 'refused']),
  /** why it was refused or skipped */
  why: z.string().optional(),
})
export type JobLine = z.infer<typeof jobLineSchema>

/** Work that takes a while on the server, shown in the trough. */
export const jobItemSchema = z.object({
  id: z.string(),
  kind: z.enum(['fetch', 'unpack', 'bag', 'entries']),
  /** what it works on: an address, or a file's title */
  name: z.string(),
  /** e-mail of who began it; empty for a command */
  by: z.string(),
  done: z.number(),
  /** null where it is not known yet */
  total: z.number().nullable(),
  unit: z.enum(['bytes', 'files', 'entries']),
  state: z.enum(['running', 'done', 'failed', 'stopped']),
  error: z.string().nullable(),
  /** further members of the problem that ended it */
  extra: z.record(z.string(), z.unknown()),
  /** identities of the files it made */
  files: z.array(z.string()),
  report: z.array(jobLineSchema),
})
export type JobItem = z.infer<typeof jobItemSchema>
