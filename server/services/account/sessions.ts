import { randomBytes } from 'node:crypto'
import Bowser from 'bowser'
import { and, desc, eq, lt, ne, or } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import type { Account, SessionItem } from '../../../core/account/accountForms'
import { newId } from '../../../core/id'
import { notFound } from '../../../core/problem'
import type { Database } from '../../db/connection'
import { accounts, sessions } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { Events } from '../events'
import { hashOf } from '../token'

const DAY = 24 * 60 * 60 * 1000
/** A session ends this long after it was used last, and this long after it began (OWASP ASVS 5, 7.3). */
const IDLE = 14 * DAY
export const LASTS = 60 * DAY
/** How exactly it is known when one was used last. */
const EXACT = 5 * 60 * 1000

/** A device in broad words: "Firefox on Linux". */
export function deviceOf(userAgent: string | undefined): string {
  if (!userAgent) return 'A program'
  const { browser, os } = Bowser.parse(userAgent)
  // A program names itself first (RFC 9110, section 10.1.5).
  return [browser.name || userAgent.split(/[\s/]/)[0], os.name].filter(Boolean).join(' on ').slice(0, 100)
}

export interface Session {
  id: string
  account: Account
}

/** Who is signed in where. */
export function createSessions(db: Database, events: Events, now: () => number = Date.now) {
  const opened = new LRUCache<string, Session & { until: number; used: number }>({ max: 500 })
  events.on('sessions', () => opened.clear())

  async function read(token: string) {
    const [row] = await db
      .select({ session: sessions, email: accounts.email, name: accounts.name, rights: accounts.rights, codeSecret: accounts.codeSecret })
      .from(sessions)
      .innerJoin(accounts, eq(accounts.id, sessions.accountId))
      .where(eq(sessions.token, hashOf(token)))
    if (!row) return undefined
    const { id, accountId, created, used } = row.session
    return {
      id,
      account: { id: accountId, email: row.email, name: row.name, rights: row.rights, secondFactor: row.codeSecret !== null },
      until: Math.min(created.getTime() + LASTS, used.getTime() + IDLE),
      used: used.getTime(),
    }
  }

  async function holds(token: string): Promise<boolean> {
    const known = opened.get(token) ?? (await read(token))
    return known !== undefined && known.until > now()
  }

  return {
    /** Signs somebody in: a new identity each time, whatever cookie was there (OWASP ASVS 5, 7.2.4). Gives the cookie's token. */
    async begin(accountId: string, place: string, userAgent: string | undefined): Promise<string> {
      const token = randomBytes(32).toString('base64url')
      const moment = new Date(now())
      await db
        .insert(sessions)
        .values({ id: newId(), token: hashOf(token), accountId, device: deviceOf(userAgent), place, created: moment, used: moment })
      return token
    },

    /** The session of a cookie's token; undefined where it has ended, or never was. */
    async find(token: string, place: string): Promise<Session | undefined> {
      const known = opened.get(token) ?? (await read(token))
      if (!known || known.until <= now()) return undefined
      opened.set(token, known)
      if (now() - known.used > EXACT) {
        known.used = now()
        db.update(sessions)
          .set({ used: new Date(now()), place })
          .where(eq(sessions.id, known.id))
          .catch(laterTrouble('when a session was used could not be noted'))
      }
      return known
    },

    /** Whether a Cookie field carries a session; nothing is noted of its use. */
    isSignedIn(cookies: string | undefined): false | Promise<boolean> {
      // Visitors who download carry cookies of gates at most: they are not made to wait for a turn.
      if (!cookies?.includes('trough=')) return false
      const [, token] = /(?:^|;\s*)(?:__Host-)?trough=([\w-]+)/.exec(cookies) ?? []
      return token !== undefined && holds(token)
    },

    async list(accountId: string, own: string): Promise<SessionItem[]> {
      const rows = await db.select().from(sessions).where(eq(sessions.accountId, accountId)).orderBy(desc(sessions.used))
      return rows.map(({ id, device, place, created, used }) => ({
        id,
        device,
        place,
        created: created.toISOString(),
        used: used.toISOString(),
        own: id === own,
      }))
    },

    /** @throws Problem 404 where the account has no such session */
    async end(accountId: string, id: string): Promise<void> {
      const rows = await db
        .delete(sessions)
        .where(and(eq(sessions.id, id), eq(sessions.accountId, accountId)))
        .returning({ id: sessions.id })
      if (!rows.length) throw notFound('session')
    },

    /** Ends all of an account's sessions but one. */
    async endOthers(accountId: string, but = ''): Promise<void> {
      await db.delete(sessions).where(and(eq(sessions.accountId, accountId), ne(sessions.id, but)))
    },

    /** Forgets those whose time is over. */
    async tidy(): Promise<void> {
      await db.delete(sessions).where(or(lt(sessions.used, new Date(now() - IDLE)), lt(sessions.created, new Date(now() - LASTS))))
    },
  }
}
export type Sessions = ReturnType<typeof createSessions>
