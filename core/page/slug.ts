import { z } from 'zod'
import { slugify } from '../files/handle'

/** First parts of addresses that belong to Trough itself. */
export const RESERVED_SLUGS = ['desk', 'api', 'files', 'shelves', 'to', 'pictures', 'see', 'pass', 'index']

/** The slug of a page; the home page's is empty. */
export const slugSchema = z
  .string()
  .max(80, 'Keep the address to 80 characters.')
  .regex(/^(?:[a-z0-9]+(?:-[a-z0-9]+)*)?$/, 'Use small letters, digits and hyphens only, such as clay-and-glaze.')
  .refine(slug => !RESERVED_SLUGS.includes(slug), 'Trough uses this address itself. Choose another, such as our-files.')

/** What was written, as a slug: `Kilns for schools` becomes `kilns-for-schools`. Empty where no letter or digit of it is left. */
export const slugOf = (written: string): string => slugify(written.replace(/&/g, ' and '))

/** A slug as people write it: what does not belong in one is not refused but written otherwise. */
export const writtenSlugSchema = z
  .string()
  .max(200, 'Keep the address to 80 characters.')
  .transform(slugOf)
  .refine(slug => slug !== '', 'Give the page an address, such as clay-and-glaze.')
  .pipe(slugSchema)

/** The slug a title asks for; "page" where nothing of it is left, and never a reserved one. */
export function slugFromTitle(title: string): string {
  const slug = slugOf(title).slice(0, 80).replace(/-+$/, '') || 'page'
  return RESERVED_SLUGS.includes(slug) ? `our-${slug}` : slug
}
