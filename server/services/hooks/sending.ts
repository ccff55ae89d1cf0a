import { and, asc, eq, lte, sql } from 'drizzle-orm'
import { Webhook } from 'standardwebhooks'
import { createQueue } from '../../../core/queue'
import type { Database } from '../../db/connection'
import { hookMessages, hooks } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { Events } from '../events'
import { askOutside, hostOf } from '../jobs/outsideRequest'
import { PrivateAddress } from '../jobs/ssrfGuard'

const MINUTE = 60 * 1000
const HOUR = 60 * MINUTE
/** Waits before what was not taken is sent again (Standard Webhooks, deliverability and reliability). */
const WAITS = [5 * 1000, 5 * MINUTE, 30 * MINUTE, 2 * HOUR, 5 * HOUR, 10 * HOUR, 14 * HOUR, 20 * HOUR, 24 * HOUR]
/** Milliseconds a service has to answer in: the specification asks for 15 to 30 seconds. */
const SILENCE = 15_000
/** While one is being sent nobody else sends it; where a process ends over it, it is sent again after this. */
const HELD = 60 * 1000
const LOOKS_EVERY = 5000
const AT_ONCE = 20
const GONE = 410

type Row = typeof hookMessages.$inferSelect & { address: string; secret: string }

/**
 * Tells other services what happened, each message at least once and always under the same identity, signed by the Standard Webhooks
 * specification.
 *
 * @param allowed hosts in private networks that may be told
 */
export function createHookSending(db: Database, events: Events, allowed: () => Promise<string[]>, now: () => number = Date.now) {
  const oneAtATime = createQueue()
  const ending = new AbortController()
  let timer: NodeJS.Timeout | undefined

  /** What went wrong; undefined where it was taken. */
  async function send({ id, body, address, secret }: Row): Promise<{ words: string; gone?: boolean } | undefined> {
    const url = new URL(address)
    const at = new Date(now())
    const hosts = await allowed()
    try {
      const answer = await askOutside(url, {
        method: 'POST',
        allowed: hosts.includes(url.host) || hosts.includes(hostOf(url)),
        agent: 'Trough (tells what happened)',
        silence: SILENCE,
        signal: ending.signal,
        body,
        headers: {
          'Content-Type': 'application/json',
          'webhook-id': id,
          'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
          'webhook-signature': new Webhook(secret).sign(id, at, body),
        },
      })
      // What it says beside its status is nobody's business, and may be long.
      answer.destroy()
      const status = answer.statusCode!
      if (status >= 200 && status < 300) return undefined
      return { words: `It answered ${status}${answer.statusMessage ? ` (${answer.statusMessage})` : ''}.`, gone: status === GONE }
    } catch (error) {
      const { message } = error as Error
      return { words: error instanceof PrivateAddress ? `${message} Allow its host in Setup, under Files.` : message }
    }
  }

  async function deliver(row: Row): Promise<void> {
    const [mine] = await db
      .update(hookMessages)
      .set({ next: new Date(now() + HELD), tries: row.tries + 1 })
      .where(and(eq(hookMessages.id, row.id), eq(hookMessages.state, 'waiting'), eq(hookMessages.tries, row.tries)))
      .returning({ id: hookMessages.id })
    if (!mine) return
    const refusal = await send(row)
    if (ending.signal.aborted) return
    if (!refusal) {
      await db.update(hookMessages).set({ state: 'sent', error: null }).where(eq(hookMessages.id, row.id))
      return
    }
    // Who says that it is gone is not told any more.
    if (refusal.gone) await db.update(hooks).set({ on: false }).where(eq(hooks.id, row.hookId))
    const wait = refusal.gone ? undefined : WAITS[row.tries]
    await db
      .update(hookMessages)
      .set({ error: refusal.words.slice(0, 500), ...(wait === undefined ? { state: 'failed' } : { next: new Date(now() + wait) }) })
      .where(eq(hookMessages.id, row.id))
  }

  /** Sends what is due. */
  const work = () =>
    oneAtATime(async () => {
      if (ending.signal.aborted) return
      const due = await db
        .select({ message: hookMessages, address: hooks.address, secret: hooks.secret })
        .from(hookMessages)
        .innerJoin(hooks, eq(hooks.id, hookMessages.hookId))
        .where(
          and(
            eq(hookMessages.state, 'waiting'),
            lte(hookMessages.next, sql`${new Date(now()).toISOString()}::timestamptz`),
            eq(hooks.on, true),
          ),
        )
        .orderBy(asc(hookMessages.next), asc(hookMessages.created))
        .limit(AT_ONCE)
      // Side by side: a service that is slow does not hold up the others.
      await Promise.all(due.map(({ message, ...hook }) => deliver({ ...message, ...hook })))
      if (due.length === AT_ONCE) soon()
    })
  const soon = () => void work().catch(laterTrouble('other services could not be told yet'))

  return {
    /** Sends what is due now. */
    work,

    start(): void {
      events.on('hooks', soon)
      timer = setInterval(soon, LOOKS_EVERY).unref()
      soon()
    },
    async close(): Promise<void> {
      clearInterval(timer)
      events.off('hooks', soon)
      ending.abort()
      await oneAtATime(async () => undefined)
    },
  }
}
export type HookSending = ReturnType<typeof createHookSending>
