import { z } from 'zod'
import { pageDocumentSchema, type PageDocument } from './schema'
import { slugSchema } from './slug'

/** A page as it stands in lists. */
export interface PageItem {
  id: string
  slug: string
  title: string
  /** when the live version was published (ISO 8601); null where the page is not live */
  published: string | null
  /** the draft holds changes that are not live */
  waiting: boolean
  /** placements of the draft that lead nowhere */
  broken: number
  changed: string
}

/** A page opened on the desk. */
export interface PageDetails extends PageItem {
  draft: PageDocument
  revision: number
}

const titleSchema = z.string().trim().min(1, 'Give the page a title.').max(200, 'Keep the title to 200 characters.')

export const newPageSchema = z.object({
  title: titleSchema,
  /** made from the title where left out */
  slug: slugSchema.refine(slug => slug !== '', 'Give the page an address, such as clay-and-glaze.').optional(),
})
export type NewPage = z.infer<typeof newPageSchema>

export const saveDraftSchema = z.object({
  title: titleSchema,
  draft: pageDocumentSchema,
  /** the revision the change was made to */
  revision: z.number().int().min(1),
})
export type SaveDraft = z.infer<typeof saveDraftSchema>

export const publishSchema = z.object({
  /** publish although some buttons lead nowhere */
  despite: z.boolean().default(false),
})
