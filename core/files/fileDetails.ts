import { z } from 'zod'
import { editionItemSchema, fileItemSchema, useSchema } from './fileItem'
import { nameAdviceSchema } from './nameAdvice'

/** A file with all that the desk shows of it. */
export const fileDetailsSchema = fileItemSchema.extend({
  usedIn: z.array(useSchema),
  editions: z.array(editionItemSchema),
  /** a better name for it; null where its own is good */
  advice: nameAdviceSchema.nullable(),
  /** other files of the same bytes */
  twins: z.array(z.object({ id: z.string(), title: z.string(), handle: z.string() })),
  /** bundles it is in */
  bundles: z.array(z.object({ id: z.string(), title: z.string(), /** bytes */ size: z.number() })),
})
export type FileDetails = z.infer<typeof fileDetailsSchema>
