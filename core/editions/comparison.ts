import { z } from 'zod'
import { editionItemSchema, factsSchema, previewStateSchema } from '../files/fileItem'
import { textComparisonSchema } from './compareTexts'

/** An edition as it is held against another. */
export const comparedEditionSchema = editionItemSchema.extend({
  tag: z.string(),
  facts: factsSchema,
  preview: previewStateSchema,
})
export type ComparedEdition = z.infer<typeof comparedEditionSchema>

/** What speaks against letting an edition take over. */
export const doubtSchema = z.enum(['same-bytes', 'other-type', 'far-smaller', 'little-in-common', 'older'])
export type Doubt = z.infer<typeof doubtSchema>

/** The edition that visitors get, and one that is to take over. */
export const comparisonSchema = z.object({
  now: comparedEditionSchema,
  next: comparedEditionSchema,
  /** undefined while their words are not read yet, or where there are none in either */
  texts: textComparisonSchema.optional(),
  /** words or pictures of one of them are still being read */
  reading: z.boolean(),
  doubts: z.array(doubtSchema),
})
export type Comparison = z.infer<typeof comparisonSchema>
