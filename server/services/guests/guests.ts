import { and, asc, count, desc, eq, exists, ilike, notInArray, or, sql, type SQL } from 'drizzle-orm'
import type { GroupItem, GuestChange, GuestItem, GuestQuery, NewGuests } from '../../../core/guests/guest'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { holding, nearBy } from '../../db/like'
import { gateTakes, groupMembers, groups, guests, outbox } from '../../db/schema'
import { forgetPersons } from '../tally/persons'

/** Guests written in one statement. */
const AT_ONCE = 1000

/** What is counted for each guest: whatever pass they have counts as them. */
export const passOfGuest = (id: string): string => `g-${id}`

/** Forgets what else is known of some addresses, in the caller's transaction. */
type AlsoForgotten = (tx: Queryable, emails: readonly string[]) => Promise<void>

/** Who gets through gates by name, and the groups they are in. */
export function createGuests(db: Database, alsoForgotten: AlsoForgotten) {
  function filterOf({ q, group }: Pick<GuestQuery, 'q' | 'group'>): SQL | undefined {
    const pattern = holding(q)
    return and(
      q ? and(or(ilike(guests.email, pattern), ilike(guests.name, pattern)), nearBy(guests.words, q)) : undefined,
      group
        ? exists(
            db
              .select({ one: sql`1` })
              .from(groupMembers)
              .where(and(eq(groupMembers.guestId, guests.id), eq(groupMembers.groupId, group))),
          )
        : undefined,
    )
  }

  async function itemsOf(rows: (typeof guests.$inferSelect)[]): Promise<GuestItem[]> {
    const ids = rows.map(({ id }) => id)
    const own = ids.length ? await db.select().from(groupMembers).where(among(groupMembers.guestId, ids)) : []
    return rows.map(({ id, email, name, passwordHash, created, came }) => ({
      id,
      email,
      name,
      groups: own.filter(({ guestId }) => guestId === id).map(({ groupId }) => groupId),
      password: passwordHash !== null,
      created: created.toISOString(),
      came: came?.toISOString() ?? null,
    }))
  }

  /** @throws Problem 404 where a group is gone */
  async function mustBeGroups(tx: Queryable, ids: readonly string[]): Promise<void> {
    if (!ids.length) return
    const there = await tx.select({ id: groups.id }).from(groups).where(among(groups.id, ids)).for('key share')
    if (there.length < new Set(ids).size) throw notFound('group')
  }

  async function checkGroupName(tx: Queryable, name: string, except = ''): Promise<void> {
    const [same] = await tx
      .select({ id: groups.id })
      .from(groups)
      .where(and(sql`lower(${groups.name}) = lower(${name})`, sql`${groups.id} <> ${except}`))
    if (same) throw new Problem(409, `There is a group “${name}” already.`, 'Choose another name.', { field: 'name' })
  }

  async function groupOf(id: string): Promise<GroupItem> {
    const [group] = await groupItems(eq(groups.id, id))
    if (!group) throw notFound('group')
    return group
  }
  const groupItems = (those?: SQL): Promise<GroupItem[]> =>
    db
      .select({ id: groups.id, name: groups.name, members: count(groupMembers.guestId) })
      .from(groups)
      .leftJoin(groupMembers, eq(groupMembers.groupId, groups.id))
      .where(those)
      .groupBy(groups.id)
      .orderBy(asc(sql`lower(${groups.name})`))

  return {
    /** The newest first. */
    async list({ from, limit, ...filter }: GuestQuery): Promise<{ items: GuestItem[]; total: number }> {
      const those = filterOf(filter)
      const rows = await db.select().from(guests).where(those).orderBy(desc(guests.created), asc(guests.id)).limit(limit).offset(from)
      return { items: await itemsOf(rows), total: await db.$count(guests, those) }
    },

    /** Some of them by identity, for gates that name them. */
    async some(ids: string[]): Promise<GuestItem[]> {
      return ids.length ? itemsOf(await db.select().from(guests).where(among(guests.id, ids))) : []
    },

    /** Puts people in; who is there already keeps what is known of them. @returns their identities, in the order they were given */
    async add({ guests: given, groups: into }: NewGuests): Promise<string[]> {
      return db.transaction(async tx => {
        await mustBeGroups(tx, into)
        const byEmail = new Map<string, string>()
        for (let at = 0; at < given.length; at += AT_ONCE) {
          const some = new Map(given.slice(at, at + AT_ONCE).map(one => [one.email, one]))
          const rows = await tx
            .insert(guests)
            .values([...some.values()].map(({ email, name }) => ({ id: newId(), email, name })))
            .onConflictDoUpdate({
              target: guests.email,
              set: { name: sql`case when ${guests.name} = '' then excluded.name else ${guests.name} end` },
            })
            .returning({ id: guests.id, email: guests.email })
          for (const { id, email } of rows) byEmail.set(email, id)
          for (const groupId of into)
            await tx
              .insert(groupMembers)
              .values(rows.map(({ id }) => ({ groupId, guestId: id })))
              .onConflictDoNothing()
        }
        return [...new Set(given.map(({ email }) => byEmail.get(email)!))]
      })
    },

    async change(id: string, { name, groups: into, password }: GuestChange): Promise<GuestItem> {
      await db.transaction(async tx => {
        const [there] = await tx.select({ id: guests.id }).from(guests).where(eq(guests.id, id)).for('update')
        if (!there) throw notFound('guest')
        if (name !== undefined || password !== undefined)
          await tx
            .update(guests)
            .set({ ...(name !== undefined && { name }), ...(password === false && { passwordHash: null }) })
            .where(eq(guests.id, id))
        if (into === undefined) return
        await mustBeGroups(tx, into)
        await tx
          .delete(groupMembers)
          .where(and(eq(groupMembers.guestId, id), into.length ? notInArray(groupMembers.groupId, into) : undefined))
        if (into.length)
          await tx
            .insert(groupMembers)
            .values(into.map(groupId => ({ groupId, guestId: id })))
            .onConflictDoNothing()
      })
      return (await this.some([id]))[0]!
    },

    /** Forgets somebody with what they took and what was sent to them; their passes end. @returns their address, for the record */
    async remove(id: string): Promise<string> {
      return db.transaction(async tx => {
        const [gone] = await tx.delete(guests).where(eq(guests.id, id)).returning({ email: guests.email })
        if (!gone) throw notFound('guest')
        await tx.delete(gateTakes).where(eq(gateTakes.pass, passOfGuest(id)))
        await forgetPersons(tx, [passOfGuest(id)])
        await tx.delete(outbox).where(eq(outbox.to, gone.email))
        await alsoForgotten(tx, [gone.email])
        return gone.email
      })
    },

    groups: () => groupItems(),

    /** @throws Problem 409 where the name is taken */
    async addGroup(name: string): Promise<GroupItem> {
      const id = newId()
      await db.transaction(async tx => {
        await checkGroupName(tx, name)
        await tx.insert(groups).values({ id, name })
      })
      return groupOf(id)
    },

    async renameGroup(id: string, name: string): Promise<GroupItem> {
      await db.transaction(async tx => {
        await checkGroupName(tx, name, id)
        await tx.update(groups).set({ name }).where(eq(groups.id, id))
      })
      return groupOf(id)
    },

    /** Takes a group away; who was in it stays. Gates that let it through let it through no more. */
    async removeGroup(id: string): Promise<void> {
      const gone = await db.delete(groups).where(eq(groups.id, id)).returning({ id: groups.id })
      if (!gone.length) throw notFound('group')
    },
  }
}
export type Guests = ReturnType<typeof createGuests>
