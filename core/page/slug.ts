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

/** The slug a title asks for; "page" where nothing of it is left, and never a reserved one. */
export function slugFromTitle(title: string): string {
  const slug = slugify(title.replace(/&/g, ' and ')).slice(0, 80).replace(/-+$/, '') || 'page'
  return RESERVED_SLUGS.includes(slug) ? `our-${slug}` : slug
}
