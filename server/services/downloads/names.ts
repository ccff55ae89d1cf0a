import { eq, sql, type SQL } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import type { Named } from '../../../core/tally/board'
import { DIMENSIONS, type Dimension } from '../../../core/tally/particulars'
import type { Database } from '../../db/connection'
import { files, pages, signposts, uses } from '../../db/schema'

/** Identities, by what they are of. */
export type Keys = Partial<Record<Dimension, Iterable<string>>>
export type Names = Record<string, Record<string, Named>>

/** One parameter for all: a table asks for thousands at once. */
const among = (column: PgColumn, ids: string[]): SQL => sql`${column} = any(${sql.param(ids)}::text[])`

/** Says what stands behind keys that are identities; what is gone has no name any more. */
export function createNames(db: Database) {
  const readers: Partial<Record<Dimension, (ids: string[]) => Promise<[id: string, named: Named][]>>> = {
    async file(ids) {
      const rows = await db.select({ id: files.id, title: files.title, handle: files.handle }).from(files).where(among(files.id, ids))
      return rows.map(({ id, title, handle }) => [id, { title, detail: handle, place: `/desk/files/${id}` }])
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

  return async (keys: Keys): Promise<Names> => {
    const names: Names = {}
    for (const dimension of DIMENSIONS) {
      const ids = [...new Set(keys[dimension])].filter(Boolean)
      const read = readers[dimension]
      if (read && ids.length) names[dimension] = Object.fromEntries(await read(ids))
    }
    return names
  }
}
