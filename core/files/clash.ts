import { z } from 'zod'
import { placeSchema } from '../folders/folderItem'

/** Names that are about to come in, with the folders they come in below `folder`: `manuals/K60.pdf`. */
export const clashQuerySchema = z.object({
  folder: placeSchema.default(null),
  names: z.array(z.string().min(1).max(4000)).max(50_000, 'Send at most 50,000 files at a time.'),
})
export type ClashQuery = z.infer<typeof clashQuerySchema>

/** A name that is taken where it would go, and by which file. */
export const clashSchema = z.object({
  name: z.string(),
  file: z.object({ id: z.string(), title: z.string(), size: z.number(), changed: z.string(), uses: z.number() }),
})
export type Clash = z.infer<typeof clashSchema>

/** What becomes of a file whose name is taken: both are kept, it is the other's next edition, or it stays out. */
export const CLASH_WAYS = ['both', 'edition', 'skip'] as const
export type ClashWay = (typeof CLASH_WAYS)[number]

export const unpackSchema = z.object({ clash: z.enum(CLASH_WAYS).default('both') })
