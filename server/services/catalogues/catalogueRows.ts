import { asc, eq, sql, type SQL } from 'drizzle-orm'
import type { Catalogue, CatalogueItem } from '../../../core/catalogue/catalogue'
import { fieldsSchema } from '../../../core/catalogue/field'
import { Problem, notFound } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { catalogues, entries, pages } from '../../db/schema'

export type CatalogueRow = typeof catalogues.$inferSelect
export type EntryRow = typeof entries.$inferSelect

/** What is written is not what visitors see. */
export const isWaiting = sql<boolean>`(${entries.live} is null or ${entries.live} <> ${entries.values})`

const count = (of: SQL) =>
  sql<number>`(select count(*)::int from ${entries} where ${entries.catalogueId} = ${catalogues.id} and ${entries.deleted} is null and ${of})`

const what = { row: catalogues, layout: pages.id }
interface Described {
  row: CatalogueRow
  layout: string | null
}
const toCatalogue = ({
  row: { id, name, one, slug, fields, key, type, properties, ofSite, source, revision },
  layout,
}: Described): Catalogue => ({
  id,
  name,
  one,
  slug,
  // Settings that came later have their usual values.
  fields: fieldsSchema.parse(fields),
  key,
  type,
  properties,
  ofSite,
  source,
  layout,
  revision,
})
const inOrder = [asc(catalogues.created), asc(catalogues.id)]

/** What catalogues are, without what would have to be counted. */
export async function catalogueDefinitions(q: Queryable, where?: SQL): Promise<Catalogue[]> {
  const rows = await q
    .select(what)
    .from(catalogues)
    .leftJoin(pages, eq(pages.catalogueId, catalogues.id))
    .where(where)
    .orderBy(...inOrder)
  return rows.map(toCatalogue)
}

/** Catalogues with how many entries they have, in the order they were made. */
export async function catalogueItems(q: Queryable, where?: SQL): Promise<CatalogueItem[]> {
  const counts = { entries: count(sql`true`), live: count(sql`${entries.live} is not null`), waiting: count(isWaiting) }
  const rows = await q
    .select({ ...what, ...counts })
    .from(catalogues)
    .leftJoin(pages, eq(pages.catalogueId, catalogues.id))
    .where(where)
    .orderBy(...inOrder)
  return rows.map(({ row, layout, ...counted }) => ({ ...toCatalogue({ row, layout }), ...counted }))
}

/** @throws Problem 404 */
export async function catalogueItem(q: Queryable, id: string): Promise<CatalogueItem> {
  const [item] = await catalogueItems(q, eq(catalogues.id, id))
  if (!item) throw notFound('catalogue')
  return item
}

/** @throws Problem 422 where it holds the values of the site, which are one entry without a page */
export function mustHaveMany({ ofSite }: Pick<Catalogue, 'ofSite'>, detail: string): void {
  if (ofSite) throw new Problem(422, 'The values of the site are no list.', detail)
}

/** Holds a catalogue for the caller's transaction: fields and entries do not change side by side. @throws Problem 404 */
export async function holdCatalogue(tx: Queryable, id: string): Promise<Catalogue> {
  await tx.select({ id: catalogues.id }).from(catalogues).where(eq(catalogues.id, id)).for('update')
  const [catalogue] = await catalogueDefinitions(tx, eq(catalogues.id, id))
  if (!catalogue) throw notFound('catalogue')
  return catalogue
}
