import { z } from 'zod'

/** What may be done with the files in a folder and below it. */
export const FILE_RIGHTS = ['see', 'put', 'renew', 'edit', 'delete'] as const
export type FileRight = (typeof FILE_RIGHTS)[number]

/** What may be done with the site as a whole. */
export const SITE_RIGHTS = ['write', 'publish', 'design', 'downloads', 'contacts', 'gates', 'site'] as const
export type SiteRight = (typeof SITE_RIGHTS)[number]

const oneOfEach = <Value extends string>(values: readonly Value[], order: readonly Value[]) => order.filter(value => values.includes(value))

/** What may be done in one place of the library. */
const grantSchema = z.object({
  /** the folder, with all below it; null for the whole library */
  folder: z.string().max(40).nullable(),
  may: z
    .array(z.enum(FILE_RIGHTS))
    .max(20)
    // Nothing can be done with what is not seen.
    .transform(may => (may.length ? oneOfEach(['see', ...may], FILE_RIGHTS) : [])),
})

/** The rights of a helper. An owner has every right there is, and has none written down. */
export const rightsSchema = z.object({
  files: z
    .array(grantSchema)
    .max(200, 'Choose at most 200 folders.')
    .transform(grants => grants.filter(grant => grant.may.length)),
  site: z
    .array(z.enum(SITE_RIGHTS))
    .max(20)
    .transform(site => oneOfEach(site, SITE_RIGHTS)),
})
export type Rights = z.infer<typeof rightsSchema>

/** Whose rights are asked about: null for an owner. */
export type Holder = Rights | null

/** Whether something may be done that is not bound to a place of the library. */
export const maySite = (holder: Holder, right: SiteRight): boolean => holder === null || holder.site.includes(right)

/** Whether pages may be read as they are worked on: whoever writes them or puts them live does. */
export const mayReadPages = (holder: Holder): boolean => maySite(holder, 'write') || maySite(holder, 'publish')

/**
 * Whether something may be done with what lies in a folder.
 *
 * @param path identities of the folders from the top down to and with it; empty for the top of the library
 */
export function mayInPath(holder: Holder, right: FileRight, path: readonly string[]): boolean {
  if (holder === null) return true
  return holder.files.some(({ folder, may }) => may.includes(right) && (folder === null || path.includes(folder)))
}

/** Whether it may be done anywhere at all. */
export const maySomewhere = (holder: Holder, right: FileRight): boolean =>
  holder === null || holder.files.some(({ may }) => may.includes(right))

/** Whether it may be done in the whole library. */
export const mayEverywhere = (holder: Holder, right: FileRight): boolean => mayInPath(holder, right, [])

/** What the rights over files are called, as an answer to "may". */
export const FILE_RIGHT_WORDS: Record<FileRight, string> = {
  see: 'see files',
  put: 'put files in',
  renew: 'put in new editions',
  edit: 'edit details and move',
  delete: 'delete',
}

export const SITE_RIGHT_WORDS: Record<SiteRight, string> = {
  write: 'write pages',
  publish: 'put pages live',
  design: 'change looks and signposts',
  downloads: 'see downloads',
  contacts: 'see contacts',
  gates: 'decide who may have what',
  site: 'change the setup',
}
