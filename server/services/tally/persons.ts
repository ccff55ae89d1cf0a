import { and, lt, ne } from 'drizzle-orm'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { downloads } from '../../db/schema'

const DAY = 86_400_000

/** Wipes addresses that were kept for as long as they may be. @param days for which they are kept; 0 for none */
export async function wipeAddresses(db: Database, days: number, now = Date.now()): Promise<void> {
  await db
    .update(downloads)
    .set({ address: '' })
    .where(and(ne(downloads.address, ''), lt(downloads.at, new Date(now - days * DAY))))
}

/** Takes out of downloads who had them, in the caller's transaction; that they were taken stays. @param persons as they are counted by */
export async function forgetPersons(tx: Queryable, persons: readonly string[]): Promise<void> {
  if (persons.length) await tx.update(downloads).set({ person: '', link: '', address: '' }).where(among(downloads.person, persons))
}
