import { eq } from 'drizzle-orm'
import type { Named } from '../../../core/tally/board'
import { LISTED, type Listed } from '../../../core/tally/particulars'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { contacts, files, folders, guests, imports, pages, personalLinks, signposts, uses } from '../../db/schema'
import { passOf } from '../contacts/contacts'
import { passOfGuest } from '../guests/guests'

/** Identities, by what they are of. */
export type Keys = Partial<Record<Listed, Iterable<string>>>
export type Names = Record<string, Record<string, Named>>

/** Who it is stays with who may see contacts. */
const unnamed = async (ids: string[]) =>
  ids.map((id, place) => [id, { title: `Person ${place + 1}`, detail: '', place: null }] as [string, Named])

/** Says what stands behind keys that are identities; what is gone has no name any more. */
export function createNames(db: Database) {
  async function filesOf(ids: string[]): Promise<[id: string, named: Named][]> {
    const rows = await db.select({ id: files.id, title: files.title, handle: files.handle }).from(files).where(among(files.id, ids))
    return rows.map(({ id, title, handle }) => [id, { title, detail: handle, place: `/desk/files/${id}` }])
  }

  const readers: Partial<Record<Listed, (ids: string[]) => Promise<[id: string, named: Named][]>>> = {
    file: filesOf,
    bundle: filesOf,
    async inFolder(ids) {
      const rows = await db.select({ id: folders.id, title: folders.name }).from(folders).where(among(folders.id, ids))
      return rows.map(({ id, title }) => [id, { title, detail: '', place: `/desk?folder=${id}` }])
    },
    async person(ids) {
      const known = new Map(ids.map(id => [id.replace(/^[cg]-/, ''), id]))
      const left = await db
        .select({ id: contacts.id, email: contacts.email })
        .from(contacts)
        .where(among(contacts.id, [...known.keys()]))
      const named = await db
        .select({ id: guests.id, email: guests.email, name: guests.name })
        .from(guests)
        .where(among(guests.id, [...known.keys()]))
      return [
        ...left.map(({ id, email }): [string, Named] => [passOf(id), { title: email, detail: 'contact', place: '/desk/contacts' }]),
        ...named.map(({ id, email, name }): [string, Named] => [
          passOfGuest(id),
          { title: name || email, detail: name ? email : 'guest', place: '/desk/guests' },
        ]),
      ]
    },
    async link(ids) {
      const rows = await db
        .select({ id: personalLinks.id, note: personalLinks.note, email: personalLinks.email, file: personalLinks.fileId })
        .from(personalLinks)
        .where(among(personalLinks.id, ids))
      return rows.map(({ id, note, email, file }) => [
        id,
        { title: note || email, detail: note ? email : '', place: `/desk/files/${file}` },
      ])
    },
    async source(ids) {
      const rows = await db.select({ id: imports.id, title: imports.name }).from(imports).where(among(imports.id, ids))
      return rows.map(({ id, title }) => [id, { title, detail: 'brought in', place: null }])
    },
    async page(ids) {
      const rows = await db
        .select({ id: pages.id, title: pages.title, slug: pages.slug, edge: pages.edge })
        .from(pages)
        .where(among(pages.id, ids))
      return rows.map(({ id, title, slug, edge }) => [id, { title, detail: edge ? '' : `/${slug}`, place: `/desk/pages/${id}` }])
    },
    async signpost(ids) {
      const rows = await db
        .select({ id: signposts.id, title: signposts.title, name: signposts.name })
        .from(signposts)
        .where(among(signposts.id, ids))
      return rows.map(({ id, title, name }) => [id, { title, detail: `/to/${name}`, place: '/desk/signposts' }])
    },
    async placement(ids) {
      const rows = await db
        .select({
          id: uses.placement,
          label: uses.label,
          kind: uses.kind,
          section: uses.section,
          page: pages.title,
          pageId: pages.id,
          side: uses.side,
        })
        .from(uses)
        .innerJoin(pages, eq(pages.id, uses.pageId))
        .where(among(uses.placement, ids))
        // As it stands live, where it does.
        .orderBy(uses.side)
      return rows.map(({ id, label, kind, section, page, pageId }) => [
        id,
        { title: label || `The ${kind}`, detail: section ? `${page}, under “${section}”` : page, place: `/desk/pages/${pageId}?at=${id}` },
      ])
    },
  }

  /** @param people it may be said who somebody is */
  return async (keys: Keys, people: boolean): Promise<Names> => {
    const names: Names = {}
    for (const dimension of LISTED) {
      const ids = [...new Set(keys[dimension])].filter(Boolean)
      const read = dimension === 'person' && !people ? unnamed : readers[dimension]
      if (read && ids.length) names[dimension] = Object.fromEntries(await read(ids))
    }
    return names
  }
}
