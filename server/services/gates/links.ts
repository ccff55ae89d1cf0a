import { eq } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { personalLinks } from '../../db/schema'
import type { Events } from '../events'

export type LinkRow = typeof personalLinks.$inferSelect

/** Personal links by their identities, from memory until any of them changes. */
export function createKnownLinks(db: Database, events: Events) {
  const known = new LRUCache<string, { row: LinkRow | undefined }>({ max: 10_000 })
  let age = 0
  events.on('links', () => {
    age++
    known.clear()
  })

  return {
    async find(id: string): Promise<LinkRow | undefined> {
      const there = known.get(id)
      if (there) return there.row
      const asked = age
      const [row] = await db.select().from(personalLinks).where(eq(personalLinks.id, id))
      if (asked === age) known.set(id, { row })
      return row
    },
  }
}
export type KnownLinks = ReturnType<typeof createKnownLinks>

/** Whether a personal link gives anything at a time. */
export const linkHolds = ({ revoked, until }: LinkRow, now: number): boolean =>
  revoked === null && (until === null || until.getTime() > now)

/** Passes of personal links stand beside those of gates under names of their own. */
const PREFIX = 'link'
export const gateOfLink = (id: string): string => PREFIX + id
export const linkOfGate = (gate: string): string | undefined => (gate.startsWith(PREFIX) ? gate.slice(PREFIX.length) : undefined)

/** Says no more whom links were sent to, in the caller's transaction; they lead on. */
export async function forgetSentTo(tx: Queryable, emails: readonly string[]): Promise<void> {
  await tx.update(personalLinks).set({ email: '', note: 'For somebody who is forgotten' }).where(among(personalLinks.email, emails))
}
