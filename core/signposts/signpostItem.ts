import { z } from 'zod'
import { firstFree, slugify } from '../files/handle'

/** A name of the site that points at a file or bundle, as the desk's API gives it. */
export const signpostItemSchema = z.object({
  id: z.string(),
  title: z.string(),
  /** the last part of its address, `/to/<name>` */
  name: z.string(),
  /** identity of what it points at; null where that is nothing */
  file: z.string().nullable(),
  /** buttons and links that lead to it, drafts and live pages taken together */
  uses: z.number(),
  /** when it was turned last, ISO 8601 */
  changed: z.string(),
})
export type SignpostItem = z.infer<typeof signpostItemSchema>

const titleSchema = z
  .string()
  .trim()
  .min(1, 'Give the signpost a title, such as Current price list.')
  .max(120, 'Keep the title to 120 characters.')
/** As people write it: what does not belong in an address is written otherwise. */
const nameSchema = z
  .string()
  .max(200, 'Keep the address to 80 characters.')
  .transform(slugify)
  .pipe(z.string().min(1, 'Give it an address, such as current-price-list.').max(80, 'Keep the address to 80 characters.'))
const fileSchema = z.string().max(40).nullable()

export const newSignpostSchema = z.object({ title: titleSchema, file: fileSchema })
export const signpostChangeSchema = z.object({ title: titleSchema, name: nameSchema }).partial()
export type SignpostChange = z.infer<typeof signpostChangeSchema>
export const turnSchema = z.object({ file: fileSchema })

/** What to do with what leads to a signpost when it is deleted. */
export const deleteSignpostSchema = z.object({
  /** `straight`: lead to the file it points at; `off`: taken off; `despite`: left as it is */
  way: z.enum(['straight', 'off', 'despite']).optional(),
})
export type DeleteSignpost = z.infer<typeof deleteSignpostSchema>

/** The name a title asks for that is not taken. */
export const signpostName = (title: string, taken: (name: string) => boolean): string =>
  firstFree(slugify(title).slice(0, 70).replace(/-+$/, '') || 'signpost', taken)
