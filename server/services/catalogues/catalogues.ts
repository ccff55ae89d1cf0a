import { eq, sql } from 'drizzle-orm'
import { fieldOf, type CatalogueChange, type CatalogueItem, type FieldsChange, type NewCatalogue } from '../../../core/catalogue/catalogue'
import { losses, refitted } from '../../../core/catalogue/fieldChange'
import { TITLE, newField } from '../../../core/catalogue/field'
import type { Values } from '../../../core/catalogue/entry'
import { firstFree } from '../../../core/files/handle'
import { newId } from '../../../core/id'
import { slugFromTitle } from '../../../core/page/slug'
import { Problem } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { catalogues, entries, retiredCatalogueSlugs } from '../../db/schema'
import { catalogueItem, catalogueItems, holdCatalogue } from './catalogueRows'
import { insertEntries, rewriteEntries } from './entryWriting'
import { keepFields } from './fieldBin'

/** Where the last part of a file name would be looked for a handle has no meaning here: slugs have no dots. */
async function freeSlug(tx: Queryable, name: string): Promise<string> {
  const rows = await tx.select({ slug: catalogues.slug }).from(catalogues)
  const taken = new Set(rows.map(({ slug }) => slug))
  return firstFree(slugFromTitle(name), slug => taken.has(slug))
}

const noField = (where: string) => new Problem(422, 'There is no such field.', 'Choose another.', { field: where })

/** Two that are made at once do not get the same address. */
const holdNames = (tx: Queryable) => tx.execute(sql`select pg_advisory_xact_lock(hashtext('catalogues'))`)

/** Catalogues: made, renamed, given other fields, taken away. */
export function createCatalogues(db: Database) {
  async function create(tx: Queryable, { name, one, fields = [newField(TITLE, 'Name')] }: NewCatalogue): Promise<string> {
    const id = newId()
    await holdNames(tx)
    const slug = await freeSlug(tx, name)
    await tx.delete(retiredCatalogueSlugs).where(eq(retiredCatalogueSlugs.slug, slug))
    await tx.insert(catalogues).values({ id, name, one, slug, fields })
    return id
  }

  return {
    list: (): Promise<CatalogueItem[]> => catalogueItems(db),
    get: (id: string): Promise<CatalogueItem> => catalogueItem(db, id),
    /** In the caller's transaction; gives its identity. */
    createIn: create,

    async create(made: NewCatalogue): Promise<CatalogueItem> {
      const id = await db.transaction(tx => create(tx, made))
      return catalogueItem(db, id)
    },

    /** The catalogue whose one entry holds the values of the whole site, made where there is none yet. */
    async ofSite(): Promise<CatalogueItem> {
      const id = await db.transaction(async tx => {
        await holdNames(tx)
        const [there] = await tx.select({ id: catalogues.id }).from(catalogues).where(eq(catalogues.ofSite, true))
        if (there) return there.id
        const made = await create(tx, { name: 'Site values', one: 'site value' })
        await tx.update(catalogues).set({ ofSite: true }).where(eq(catalogues.id, made))
        await insertEntries(tx, await holdCatalogue(tx, made), [{ [TITLE]: 'This site' }])
        return made
      })
      return catalogueItem(db, id)
    },

    /** @throws Problem 404, 409 where another catalogue has the address */
    async change(id: string, { slug, ...said }: CatalogueChange): Promise<CatalogueItem> {
      await db.transaction(async tx => {
        const before = await holdCatalogue(tx, id)
        if (said.key && !fieldOf(before.fields, said.key)) throw noField('key')
        for (const field of Object.values(said.properties ?? {})) if (!fieldOf(before.fields, field)) throw noField('properties')
        if (slug !== undefined && slug !== before.slug) {
          const [holder] = await tx.select({ name: catalogues.name }).from(catalogues).where(eq(catalogues.slug, slug))
          if (holder) throw new Problem(409, `“${holder.name}” is at /${slug}/ already.`, 'Choose another address.', { field: 'slug' })
          await tx.delete(retiredCatalogueSlugs).where(eq(retiredCatalogueSlugs.slug, slug))
          await tx.insert(retiredCatalogueSlugs).values({ slug: before.slug, catalogueId: id })
          await tx.update(catalogues).set({ slug }).where(eq(catalogues.id, id))
        }
        if (anyGiven(said)) await tx.update(catalogues).set(said).where(eq(catalogues.id, id))
      })
      return catalogueItem(db, id)
    },

    /**
     * Gives a catalogue other fields: what was written goes with them as far as it can; a field that is taken out lies in the bin.
     *
     * @throws Problem 409 where somebody else changed them since, or something would be lost and `despite` is not set: what, in `losses`
     */
    async changeFields(id: string, { fields, revision, despite }: FieldsChange): Promise<CatalogueItem> {
      await db.transaction(async tx => {
        const before = await holdCatalogue(tx, id)
        if (before.revision !== revision)
          throw new Problem(409, 'The fields were changed somewhere else.', 'Load them again, and make your change to those.', {
            revision: before.revision,
          })
        const rows = await tx
          .select({ id: entries.id, values: entries.values, live: entries.live })
          .from(entries)
          .where(eq(entries.catalogueId, id))
        const lost = losses(
          before.fields,
          fields,
          rows.map(({ values }) => values),
        )
        if (lost.length && !despite)
          throw new Problem(409, 'Something that is written would be lost.', lost.map(({ words }) => words).join(' '), { losses: lost })
        await tx
          .update(catalogues)
          .set({
            fields,
            revision: revision + 1,
            properties: Object.fromEntries(Object.entries(before.properties).filter(([, field]) => fieldOf(fields, field))),
            ...(before.key && !fieldOf(fields, before.key) && { key: null }),
          })
          .where(eq(catalogues.id, id))
        await keepFields(tx, id, before.fields, fields, rows)
        const fit = (values: Values) => refitted(before.fields, fields, values)
        const changed = rows.flatMap(row => {
          const [values, live] = [fit(row.values), row.live && fit(row.live)]
          return values === row.values && live === row.live ? [] : [{ id: row.id, values, live }]
        })
        await rewriteEntries(tx, fields, changed)
      })
      return catalogueItem(db, id)
    },

    /**
     * Takes a catalogue away with its entries and what they are laid out in.
     *
     * @throws Problem 409 where it has entries and `despite` is not set
     */
    async remove(id: string, { despite }: { despite: boolean }): Promise<void> {
      await db.transaction(async tx => {
        await holdCatalogue(tx, id)
        const { name, entries: count } = await catalogueItem(tx, id)
        if (count && !despite)
          throw new Problem(
            409,
            `“${name}” has ${count === 1 ? '1 entry' : `${count} entries`}.`,
            'They would be gone for good. Take them out first, or go on all the same.',
            {
              entries: count,
            },
          )
        await tx.delete(catalogues).where(eq(catalogues.id, id))
      })
    },
  }
}
export type Catalogues = ReturnType<typeof createCatalogues>
