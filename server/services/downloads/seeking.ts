import { ilike, or } from 'drizzle-orm'
import type { Wanted } from '../../../core/tally/columns'
import type { Database } from '../../db/connection'
import { holding } from '../../db/like'
import { contacts, files, guests, pages, signposts, uses } from '../../db/schema'
import { passOf } from '../contacts/contacts'
import { passOfGuest } from '../guests/guests'

/** More of them are found by more words. */
const MOST = 2000

/** Finds by words what downloads are told by as identities: files, pages, buttons, signposts, persons. */
export function createSeeking(db: Database) {
  return async (words: string, { people }: { people: boolean }): Promise<Wanted | undefined> => {
    if (!words) return undefined
    const like = holding(words)
    const idsOf = (rows: { id: string }[]) => rows.map(({ id }) => id)
    const named = await db
      .select({ id: files.id })
      .from(files)
      .where(or(ilike(files.title, like), ilike(files.handle, like)))
      .limit(MOST)
    const onPages = await db
      .select({ id: pages.id })
      .from(pages)
      .where(or(ilike(pages.title, like), ilike(pages.slug, like)))
      .limit(MOST)
    const labelled = await db.selectDistinct({ id: uses.placement }).from(uses).where(ilike(uses.label, like)).limit(MOST)
    const posted = await db
      .select({ id: signposts.id })
      .from(signposts)
      .where(or(ilike(signposts.title, like), ilike(signposts.name, like)))
      .limit(MOST)
    const left = people ? await db.select({ id: contacts.id }).from(contacts).where(ilike(contacts.email, like)).limit(MOST) : []
    const known = people
      ? await db
          .select({ id: guests.id })
          .from(guests)
          .where(or(ilike(guests.email, like), ilike(guests.name, like)))
          .limit(MOST)
      : []
    return {
      text: words.toLowerCase(),
      ids: {
        file: idsOf(named),
        page: idsOf(onPages),
        placement: idsOf(labelled),
        signpost: idsOf(posted),
        person: [...idsOf(left).map(passOf), ...idsOf(known).map(passOfGuest)],
      },
    }
  }
}
