import { randomBytes } from 'node:crypto'
import { and, asc, count, desc, eq, lt, ne, sql } from 'drizzle-orm'
import { TRIAL, type HookChange, type HookItem, type HookMessage, type MadeHook, type NewHook } from '../../../core/hooks/hook'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import type { Database } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { hookMessages, hooks } from '../../db/schema'
import { hookBody } from '../tellHooks'

/** More would tell the same everywhere. */
const MOST_HOOKS = 20
const MOST_LISTED = 100
/** Days for which it is kept what was told. */
const KEPT = 30

/** The specification writes secrets so, of 24 to 64 bytes (Standard Webhooks, signature scheme). */
const newSecret = () => `whsec_${randomBytes(32).toString('base64')}`

/** Other services that are told what happens, and what they were told. */
export function createHooks(db: Database) {
  async function list(): Promise<HookItem[]> {
    const rows = await db.select().from(hooks).orderBy(asc(hooks.created))
    const counts = await db
      .select({ hookId: hookMessages.hookId, state: hookMessages.state, count: count() })
      .from(hookMessages)
      .where(ne(hookMessages.state, 'sent'))
      .groupBy(hookMessages.hookId, hookMessages.state)
    const of = (id: string, state: string) => counts.find(row => row.hookId === id && row.state === state)?.count ?? 0
    return rows.map(({ id, address, events, on, created }) => ({
      id,
      address,
      events,
      on,
      waiting: of(id, 'waiting'),
      failed: of(id, 'failed'),
      created: created.toISOString(),
    }))
  }

  async function get(id: string): Promise<HookItem> {
    const hook = (await list()).find(one => one.id === id)
    if (!hook) throw notFound('service')
    return hook
  }

  return {
    list,

    async create({ address, events }: NewHook): Promise<MadeHook> {
      const [id, secret] = [newId(), newSecret()]
      await db.transaction(async tx => {
        const there = await tx.$count(hooks)
        if (there >= MOST_HOOKS) throw new Problem(409, `There are ${MOST_HOOKS} services already.`, 'Take one off first.')
        await tx.insert(hooks).values({ id, address, events, secret })
      })
      return { ...(await get(id)), secret }
    },

    async change(id: string, change: HookChange): Promise<HookItem> {
      if (anyGiven(change)) await db.update(hooks).set(change).where(eq(hooks.id, id))
      return get(id)
    },

    /** Another secret in the place of the one there is; what is sent from now on is signed with it. */
    async renewSecret(id: string): Promise<MadeHook> {
      const secret = newSecret()
      await db.update(hooks).set({ secret }).where(eq(hooks.id, id))
      return { ...(await get(id)), secret }
    },

    async remove(id: string): Promise<void> {
      const gone = await db.delete(hooks).where(eq(hooks.id, id)).returning({ id: hooks.id })
      if (!gone.length) throw notFound('service')
    },

    /** Sends a message that says nothing but that it arrived. */
    async try(id: string): Promise<void> {
      await get(id)
      const body = hookBody(TRIAL, { words: 'If you read this, it works.' }, new Date())
      await db.insert(hookMessages).values({ id: `msg_${newId(24)}`, hookId: id, event: TRIAL, body })
    },

    /** What it was told, the newest first. */
    async messages(id: string): Promise<HookMessage[]> {
      await get(id)
      const rows = await db
        .select()
        .from(hookMessages)
        .where(eq(hookMessages.hookId, id))
        .orderBy(desc(hookMessages.created), desc(hookMessages.id))
        .limit(MOST_LISTED)
      return rows.map(({ hookId: _, created, next, ...row }) => ({
        ...row,
        created: created.toISOString(),
        next: row.state === 'waiting' ? next.toISOString() : null,
      }))
    },

    /** Tries what could not be told once more, from the beginning. */
    async again(id: string, message: string): Promise<void> {
      const rows = await db
        .update(hookMessages)
        .set({ state: 'waiting', tries: 0, next: sql`now()` })
        .where(and(eq(hookMessages.id, message), eq(hookMessages.hookId, id)))
        .returning({ id: hookMessages.id })
      if (!rows.length) throw notFound('message')
    },

    /** Forgets what was told long ago. */
    async tidy(now = Date.now()): Promise<void> {
      await db
        .delete(hookMessages)
        .where(and(ne(hookMessages.state, 'waiting'), lt(hookMessages.created, new Date(now - KEPT * 24 * 60 * 60 * 1000))))
    },
  }
}
export type Hooks = ReturnType<typeof createHooks>
