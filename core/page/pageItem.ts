import { z } from 'zod'
import { countedSchema } from '../counted'
import { pageChangeSchema, pageTextSchema } from './changes'
import { pagePartSchema } from './edges'
import { pageDocumentSchema, savedDocumentSchema } from './schema'
import { saidGateSchema } from '../gate/gate'
import { writtenSlugSchema } from './slug'
import { START_NAMES } from './starts'

/** A page as it stands in lists. */
export const pageItemSchema = z.object({
  id: z.string(),
  slug: z.string(),
  /** it is no page, but stands at this edge of each, or is what every entry of a catalogue is laid out in */
  edge: pagePartSchema.nullable(),
  /** the catalogue whose entries are laid out in it */
  catalogue: z.string().nullable(),
  title: z.string(),
  description: z.string(),
  /** shown in the site's menu while it is live */
  inMenu: z.boolean(),
  /** identity of the picture that is shown with links to it elsewhere */
  picture: z.string().nullable(),
  /** the gate it stands behind; null where it is open */
  gate: saidGateSchema,
  /** when the live version was published (ISO 8601); null where the page is not live */
  published: z.string().nullable(),
  /** the draft holds changes that are not live */
  waiting: z.boolean(),
  /** placements of the draft that lead nowhere */
  broken: z.number(),
  changed: z.string(),
})
export type PageItem = z.infer<typeof pageItemSchema>

/** A page in the bin. */
export const binnedPageSchema = z.object({
  id: z.string(),
  title: z.string(),
  /** the address it had */
  slug: z.string(),
  /** visitors could read it */
  live: z.boolean(),
  /** ISO 8601 */
  deleted: z.string(),
})
export type BinnedPage = z.infer<typeof binnedPageSchema>

/** A page opened on the desk. */
export const pageDetailsSchema = pageItemSchema.extend({
  draft: savedDocumentSchema,
  revision: z.number(),
  /** what visitors read now; null where the page is not live */
  live: pageTextSchema.nullable(),
})
export type PageDetails = z.infer<typeof pageDetailsSchema>

/** A version of a page that was live. */
export const pageVersionSchema = z.object({
  number: z.number(),
  title: z.string(),
  /** ISO 8601 */
  published: z.string(),
  /** e-mail of who put it live; empty where it followed something else */
  by: z.string(),
  /** visitors read this one now */
  live: z.boolean(),
  /** what it changed */
  changes: z.array(pageChangeSchema),
})
export type PageVersion = z.infer<typeof pageVersionSchema>

const titleSchema = z.string().trim().min(1, 'Give the page a title.').max(200, 'Keep the title to 200 characters.')

export const newPageSchema = z.object({
  title: titleSchema,
  /** made from the title where left out */
  slug: writtenSlugSchema.optional(),
  /** what is on it at first; nothing where left out */
  start: z.enum(START_NAMES).optional(),
})
export type NewPage = z.infer<typeof newPageSchema>

export const saveDraftSchema = z.object({
  title: titleSchema,
  draft: pageDocumentSchema,
  /** the revision the change was made to */
  revision: countedSchema,
})
export type SaveDraft = z.infer<typeof saveDraftSchema>

/** What holds of a page at once, draft and live alike. */
export const pageSettingsSchema = z
  .object({
    slug: writtenSlugSchema,
    description: z.string().trim().max(300, 'Keep the description to 300 characters: search engines show about 160.'),
    inMenu: z.boolean(),
    picture: z.string().max(40).nullable(),
    gate: saidGateSchema,
  })
  .partial()
export type PageSettings = z.infer<typeof pageSettingsSchema>

export const publishSchema = z.object({
  /** publish although some buttons lead nowhere */
  despite: z.boolean().default(false),
})

/** Go on although other pages lead to it. */
export const despiteQuerySchema = z
  .object({ despite: z.literal('yes').optional() })
  .transform(({ despite }) => ({ despite: despite !== undefined }))
