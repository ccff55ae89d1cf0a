import { setTimeout as wait } from 'node:timers/promises'
import { and, asc, count, desc, eq, gt, inArray, lte, sql } from 'drizzle-orm'
import { newId } from '../../../core/id'
import type { Message, MessageItem, MessageState } from '../../../core/outbox/message'
import type { MailSettings, MailState } from '../../../core/outbox/mailSettings'
import { withoutPassword } from '../../../core/outbox/mailSettings'
import { escapeHtml } from '../../../core/page/escape'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { outbox } from '../../db/schema'
import { laterTrouble } from '../../log'
import { createQueue } from '../../../core/queue'
import type { MailSettingsService } from './settings'
import type { Transport } from './transport'

export interface NewMessage {
  to: string
  subject: string
  text: string
  html: string
  /** fields beside those that every message has */
  headers?: Record<string, string>
}

type Row = typeof outbox.$inferSelect

const HOUR = 60 * 60 * 1000
const WEEK = 7 * 24 * HOUR
/** Waits before a message that was not taken is tried again, in milliseconds; after the last it has failed (RFC 5321, section 4.5.4.1). */
const WAITS = [1, 5, 30, 120, 360, 720, 1440, 1440].map(minutes => minutes * 60 * 1000)
/** How often it is looked for what has come to be due. */
const LOOKS_EVERY = 30_000
const AT_ONCE = 20
/** How long a message under way is waited for at the end, in milliseconds. */
const LAST_WAIT = 3000

const toItem = ({ id, to, subject, state, tries, error, created, next, sent }: Row): MessageItem => ({
  id,
  to,
  subject,
  state,
  tries,
  error,
  created: created.toISOString(),
  next: state === 'waiting' ? next.toISOString() : null,
  sent: sent?.toISOString() ?? null,
})

/** Every message that Trough writes: kept, readable, and sent where there is a mail service. */
export function createOutbox(
  db: Database,
  mail: MailSettingsService,
  transport: Transport,
  sender: () => Promise<{ name: string; host: string }>,
  now: () => number = Date.now,
) {
  const oneAtATime = createQueue()
  const behindAnswers = createQueue()
  /** Waits until all is done that was begun behind answers. */
  const settled = () => behindAnswers(async () => undefined)
  let timer: NodeJS.Timeout | undefined
  let closed = false
  /** it was closed while a message was still on its way */
  let left = false

  /** What was on its way when a process ended may have arrived: it is not sent again by itself. */
  const leaveUnsure = () => db.update(outbox).set({ state: 'unsure' }).where(eq(outbox.state, 'sending'))

  async function roomThisHour({ perHour }: MailSettings): Promise<number> {
    const [row] = await db
      .select({ count: count() })
      .from(outbox)
      .where(sql`${outbox.sent} > ${new Date(now() - HOUR).toISOString()}::timestamptz`)
    return Math.max(0, perHour - row!.count)
  }

  async function send(row: Row, settings: MailSettings): Promise<void> {
    // Said before it leaves: whoever reads this after the power came back knows that it may have.
    const [mine] = await db
      .update(outbox)
      .set({ state: 'sending', tries: row.tries + 1 })
      .where(and(eq(outbox.id, row.id), eq(outbox.state, 'waiting')))
      .returning({ id: outbox.id })
    if (!mine) return
    const { name, host } = await sender()
    const refusal = await transport.send(settings, { ...row, fromName: name, host })
    // Nobody waits any more, and the database may be closed.
    if (left) return
    if (!refusal) {
      await db
        .update(outbox)
        .set({ state: 'sent', sent: new Date(now()), error: null })
        .where(eq(outbox.id, row.id))
      return
    }
    const wait = refusal.lasting ? undefined : WAITS[row.tries]
    await db
      .update(outbox)
      .set(
        wait === undefined
          ? { state: 'failed', error: refusal.words }
          : { state: 'waiting', error: refusal.words, next: new Date(now() + wait) },
      )
      .where(eq(outbox.id, row.id))
  }

  /** Sends what is due. */
  const work = () =>
    oneAtATime(async () => {
      if (closed) return
      const settings = await mail.get()
      if (!settings.smtp) return
      const room = await roomThisHour(settings)
      if (!room) return
      const due = await db
        .select()
        .from(outbox)
        .where(and(eq(outbox.state, 'waiting'), lte(outbox.next, new Date(now()))))
        .orderBy(asc(outbox.next), asc(outbox.created))
        .limit(Math.min(AT_ONCE, room))
      for (const row of due) if (!closed) await send(row, settings)
      if (due.length === AT_ONCE) soon()
    })

  const soon = () => void setImmediate(() => work().catch(laterTrouble('messages could not be sent yet')))

  async function mustHave(id: string): Promise<Row> {
    const [row] = await db.select().from(outbox).where(eq(outbox.id, id))
    if (!row) throw notFound('message')
    return row
  }

  return {
    /** Begins to send; what an earlier process had under way is left as it was. */
    async start(): Promise<void> {
      await leaveUnsure()
      timer = setInterval(soon, LOOKS_EVERY)
      timer.unref()
      soon()
    },

    /** Writes a message down, in the caller's transaction where there is one; {@link soon} sends it. */
    async add({ to, subject, text, html, headers = {} }: NewMessage, q: Queryable = db): Promise<string> {
      const id = newId()
      await q.insert(outbox).values({ id, to, subject, text, html, headers, next: new Date(now()) })
      return id
    },

    /**
     * Does what may end in a message behind the answer of whoever asked for it: neither that nor how long it takes tells them whether there
     * is anybody to write to (OWASP, Forgot Password Cheat Sheet).
     */
    behind(write: () => Promise<void>): void {
      void behindAnswers(write).then(soon, laterTrouble('a message that somebody asked for could not be written'))
    },

    /** How many messages of the last week could not be sent. */
    failedLately: (): Promise<number> => db.$count(outbox, and(eq(outbox.state, 'failed'), gt(outbox.created, new Date(now() - WEEK)))),

    /** Has what waits sent as soon as it can be. */
    soon,

    settled,

    /** The newest first, with those that were asked for before and are still being written. */
    async list({
      from,
      limit,
      state,
    }: {
      from: number
      limit: number
      state?: MessageState
    }): Promise<{ items: MessageItem[]; total: number }> {
      await settled()
      const where = state && eq(outbox.state, state)
      const rows = await db.select().from(outbox).where(where).orderBy(desc(outbox.created), desc(outbox.id)).limit(limit).offset(from)
      const [all] = await db.select({ count: count() }).from(outbox).where(where)
      return { items: rows.map(toItem), total: all!.count }
    },

    /** @throws Problem 404 */
    async get(id: string): Promise<Message> {
      const row = await mustHave(id)
      return { ...toItem(row), text: row.text, html: row.html, headers: row.headers }
    },

    /** Has a message sent again that failed, or of which nobody knows. @throws Problem 404, 409 */
    async again(id: string): Promise<void> {
      const { state } = await mustHave(id)
      if (state === 'sent' || state === 'sending') throw new Problem(409, 'That message is on its way or there.', 'Write a new one.')
      await db
        .update(outbox)
        .set({ state: 'waiting', tries: 0, error: null, next: new Date(now()) })
        .where(eq(outbox.id, id))
      soon()
    },

    /** @throws Problem 404, or 409 while it is being sent */
    async remove(id: string): Promise<void> {
      const gone = await db
        .delete(outbox)
        .where(and(eq(outbox.id, id), inArray(outbox.state, ['waiting', 'sent', 'failed', 'unsure'])))
        .returning({ id: outbox.id })
      if (gone.length) return
      await mustHave(id)
      throw new Problem(409, 'That message is just being sent.', 'Wait a moment.')
    },

    /** How it stands with sending. */
    async state(): Promise<MailState> {
      const settings = await mail.get()
      const rows = await db.select({ state: outbox.state, count: count() }).from(outbox).groupBy(outbox.state)
      const of = (...states: MessageState[]) => rows.filter(row => states.includes(row.state)).reduce((sum, row) => sum + row.count, 0)
      return {
        ...settings,
        smtp: withoutPassword(settings.smtp),
        fixed: mail.fixed,
        waiting: of('waiting', 'sending'),
        failed: of('failed', 'unsure'),
      }
    },

    /** Sends a message at once; gives what the mail service said where it did not take it. @throws Problem 409 where there is none */
    async test(to: string): Promise<string | null> {
      const settings = await mail.get()
      if (!settings.smtp) throw new Problem(409, 'No mail service is set.', 'Give its address and save it first.')
      const { name, host } = await sender()
      const words = `This is a message from ${name}. It arrived: messages can be sent.`
      const refusal = await transport.send(settings, {
        id: newId(),
        to,
        subject: `A message from ${name}`,
        text: words,
        html: `<p>${escapeHtml(words)}</p>`,
        headers: {},
        fromName: name,
        host,
      })
      return refusal?.words ?? null
    },

    async set(given: MailSettings): Promise<void> {
      await mail.set(given)
      soon()
    },

    async close(): Promise<void> {
      await settled()
      closed = true
      clearInterval(timer)
      // The one that is being sent is waited for, unless its mail service stands still: then nobody knows whether it arrived.
      await Promise.race([oneAtATime(async () => undefined), wait(LAST_WAIT, undefined, { ref: false })])
      left = true
    },
  }
}
export type Outbox = ReturnType<typeof createOutbox>
