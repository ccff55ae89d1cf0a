import { and, eq, sql } from 'drizzle-orm'
import type { HookEvent } from '../../core/hooks/hook'
import { newId } from '../../core/id'
import type { Queryable } from '../db/connection'
import { hookMessages, hooks } from '../db/schema'

/** A message as it is signed and sent (Standard Webhooks, payload structure: type, timestamp, data). */
export const hookBody = (type: string, data: object, at: Date): string => JSON.stringify({ type, timestamp: at.toISOString(), data })

/**
 * Notes what other services are told of, in the caller's transaction: what happened and that it is told are one.
 *
 * @param about what happened, several at once
 */
export async function tellHooks(q: Queryable, event: HookEvent, about: object[]): Promise<void> {
  const listening = await q
    .select({ id: hooks.id })
    .from(hooks)
    .where(and(eq(hooks.on, true), sql`${event} = any(${hooks.events})`))
  if (!listening.length || !about.length) return
  const now = new Date()
  await q
    .insert(hookMessages)
    .values(
      listening.flatMap(({ id }) => about.map(data => ({ id: `msg_${newId(24)}`, hookId: id, event, body: hookBody(event, data, now) }))),
    )
}
