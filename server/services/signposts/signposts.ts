import { asc, eq, sql, type SQL } from 'drizzle-orm'
import type { Use } from '../../../core/files/fileItem'
import { newId } from '../../../core/id'
import { signpostName, type DeleteSignpost, type SignpostChange, type SignpostItem } from '../../../core/signposts/signpostItem'
import { Problem, notFound } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { retiredSignposts, signposts, uses } from '../../db/schema'
import { getFile } from '../files/items'
import { usesOfTarget } from '../uses/usesOf'
import type { PageService } from '../pages/pages'

/** Signposts: made, turned, renamed and taken down; all that leads to one follows. */
export function createSignposts(db: Database, pages: PageService) {
  async function read(q: Queryable, where?: SQL): Promise<SignpostItem[]> {
    const counted = sql<number>`(select count(distinct (${uses.pageId}, ${uses.placement}))::int from ${uses} where ${uses.signpostId} = ${signposts.id})`
    const rows = await q
      .select({ signpost: signposts, uses: counted })
      .from(signposts)
      .where(where)
      .orderBy(asc(sql`lower(${signposts.title})`))
    return rows.map(({ signpost: { id, title, name, fileId, changed }, uses: count }) => ({
      id,
      title,
      name,
      file: fileId,
      uses: count,
      changed: changed.toISOString(),
    }))
  }

  async function get(id: string, q: Queryable = db): Promise<SignpostItem> {
    const [item] = await read(q, eq(signposts.id, id))
    if (!item) throw notFound('signpost')
    return item
  }

  /** @throws Problem 422 where a file lies in the bin */
  async function mustBeThere(tx: Queryable, file: string | null): Promise<void> {
    if (file === null) return
    const { title, deleted } = await getFile(tx, file)
    if (deleted) throw new Problem(422, `“${title}” is in the bin.`, 'Restore it first, or choose another file.', { field: 'file' })
  }

  async function nameTaken(tx: Queryable, but?: string): Promise<(name: string) => boolean> {
    const used = await tx.select({ name: signposts.name, id: signposts.id }).from(signposts)
    const retired = await tx.select({ name: retiredSignposts.name, id: retiredSignposts.signpostId }).from(retiredSignposts)
    const names = new Map([...retired, ...used].map(row => [row.name, row.id]))
    return name => names.has(name) && names.get(name) !== but
  }

  return {
    get: (id: string, tx?: Queryable) => get(id, tx),
    list: () => read(db),
    /** Where a signpost is used, drafts and live pages merged by placement. */
    places: (id: string): Promise<Use[]> => usesOfTarget(db, { kind: 'signpost', id }),

    async create({ title, file }: { title: string; file: string | null }): Promise<SignpostItem> {
      const id = newId()
      await db.transaction(async tx => {
        await mustBeThere(tx, file)
        await tx.insert(signposts).values({ id, title, name: signpostName(title, await nameTaken(tx)), fileId: file })
      })
      return get(id)
    },

    /**
     * Renames it; a former address redirects from then on.
     *
     * @throws Problem 409 where another signpost has or had the name
     */
    async change(id: string, { title, name }: SignpostChange): Promise<SignpostItem> {
      await db.transaction(async tx => {
        const before = await get(id, tx)
        const moves = name !== undefined && name !== before.name
        if (moves && (await nameTaken(tx, id))(name))
          throw new Problem(409, `/to/${name} belongs to another signpost.`, 'Choose another address.', { field: 'name' })
        if (anyGiven({ title, name })) await tx.update(signposts).set({ title, name }).where(eq(signposts.id, id))
        if (!moves) return
        await tx.delete(retiredSignposts).where(eq(retiredSignposts.name, name))
        await tx.insert(retiredSignposts).values({ name: before.name, signpostId: id })
      })
      return get(id)
    },

    /** Points it at another file, in the caller's transaction. */
    async turnIn(tx: Queryable, id: string, file: string | null): Promise<void> {
      await get(id, tx)
      await mustBeThere(tx, file)
      await tx.update(signposts).set({ fileId: file, changed: new Date() }).where(eq(signposts.id, id))
    },

    /** Points it at another file or bundle, or at nothing: all that leads to it follows at once. */
    async turn(id: string, file: string | null): Promise<SignpostItem> {
      await db.transaction(tx => this.turnIn(tx, id, file))
      return get(id)
    },

    /**
     * Takes a signpost down; its address says so from then on.
     *
     * @throws Problem 409 with the places in `uses` where something leads to it and no way on is chosen
     */
    async remove(id: string, { way }: DeleteSignpost): Promise<void> {
      await db.transaction(async tx => {
        const { file, name } = await get(id, tx)
        const places = await usesOfTarget(tx, { kind: 'signpost', id })
        if (places.length && !way)
          throw new Problem(
            409,
            `${places.length === 1 ? '1 place leads' : `${places.length} places lead`} to this signpost.`,
            'Lead them straight to its file, take them off, or take it down all the same.',
            { uses: places },
          )
        if (way === 'straight' && file === null) throw new Problem(422, 'It points at nothing.', 'Turn it first, or take those places off.')
        if (way === 'straight') await pages.retarget(tx, { kind: 'signpost', id }, { kind: 'file', id: file! })
        if (way === 'off') await pages.retarget(tx, { kind: 'signpost', id }, 'remove')
        await tx.delete(signposts).where(eq(signposts.id, id))
        await tx.insert(retiredSignposts).values({ name, signpostId: null })
      })
    },

    /** Those of some signposts that are there. */
    async some(ids: string[]): Promise<Map<string, SignpostItem>> {
      return new Map(ids.length ? (await read(db, among(signposts.id, ids))).map(item => [item.id, item]) : [])
    },

    /** The signpost of a name, or that had it once. */
    async at(name: string): Promise<{ id: string; title: string } | undefined> {
      const [own] = await db.select({ id: signposts.id, title: signposts.title }).from(signposts).where(eq(signposts.name, name))
      if (own) return own
      const [former] = await db
        .select({ id: signposts.id, title: signposts.title })
        .from(retiredSignposts)
        .innerJoin(signposts, eq(signposts.id, retiredSignposts.signpostId))
        .where(eq(retiredSignposts.name, name))
      return former
    },
  }
}
export type Signposts = ReturnType<typeof createSignposts>
