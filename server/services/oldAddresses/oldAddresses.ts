import { setImmediate as nextTurn } from 'node:timers/promises'
import { and, asc, count, desc, eq, ilike, isNotNull, isNull, sql } from 'drizzle-orm'
import { splitExtension } from '../../../core/files/fileName'
import type { OldAddressList, OldAddressQuery } from '../../../core/oldAddresses/oldAddressItem'
import { normalPath, waysToRead } from '../../../core/oldAddresses/path'
import type { ListedAddress } from '../../../core/oldAddresses/readAddressList'
import { Suggester } from '../../../core/oldAddresses/suggest'
import { filePath, pageHref } from '../../../core/page/href'
import type { Target } from '../../../core/page/schema'
import type { Led } from '../../../core/page/led'
import { Problem, notFound } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { oldAddresses } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { AddressesMessage, AddressesTask } from '../../workers/addresses'
import type { Events } from '../events'
import type { LibraryService } from '../library/library'
import { isOut } from '../files/items'
import type { PageService } from '../pages/pages'
import type { Recognising } from '../recognising/recognising'
import type { Signposts } from '../signposts/signposts'
import type { SiteService } from '../site/site'
import { createAsker, workerScript } from '../workerHost'
import { createKnownPaths } from './knownPaths'

const PATIENCE = 60_000
/** Addresses written in one step; more would keep visitors waiting. */
const AT_ONCE = 500
/** Suggestions this good are taken many at once. */
const SURE = 0.75
/** What was asked for in vain is written down together, after so many milliseconds. */
const REST = 2000
/** Different addresses noted until then; more are only noise. */
const MOST_NOTED = 1000

/** Addresses a site had before: taken in from lists, led to what took their place, and counted while nothing has. */
export function createOldAddresses({
  db,
  library,
  pages,
  signposts,
  recognising,
  site,
  events,
}: {
  db: Database
  events: Events
  library: Pick<LibraryService, 'byId' | 'all'>
  pages: PageService
  signposts: Signposts
  recognising: Recognising
  site: SiteService
}) {
  const known = createKnownPaths(db, events)
  const reader = createAsker<AddressesTask, AddressesMessage>(workerScript('addresses'), PATIENCE)
  let missed = new Map<string, number>()
  let resting: ReturnType<typeof setTimeout> | undefined

  /** Where targets are now, by their identity; those that visitors cannot have are left out. */
  async function placesOf(targets: Target[]): Promise<Map<string, { path: string; title: string }>> {
    const ids = (kind: Target['kind']) => targets.flatMap(target => (target.kind === kind && 'id' in target ? [target.id] : []))
    const found = new Map<string, { path: string; title: string }>()
    for (const file of await library.byId(ids('file')))
      if (!isOut(file)) found.set(file.id, { path: filePath(file.handle), title: file.title })
    for (const [id, { slug, title }] of await pages.livePages(ids('page'))) found.set(id, { path: pageHref(slug), title })
    for (const [id, { name, title }] of await signposts.some(ids('signpost'))) found.set(id, { path: `/to/${name}`, title })
    return found
  }

  async function suggester(): Promise<Suggester> {
    const files = (await library.all()).filter(file => !isOut(file))
    return new Suggester([
      ...files.map(file => ({
        target: { kind: 'file' as const, id: file.id },
        title: file.title,
        names: [file.title, file.fileName, file.handle],
        ending: splitExtension(file.fileName)[1].toLowerCase(),
        weight: file.uses,
      })),
      // What is current is what was meant.
      ...(await signposts.list())
        .filter(({ file }) => file !== null)
        .map(({ id, title, name }) => ({
          target: { kind: 'signpost' as const, id },
          title,
          names: [title, name],
          ending: '',
          weight: Infinity,
        })),
      ...(await pages.titles())
        .filter(page => page.live)
        .map(({ id, title, slug }) => ({ target: { kind: 'page' as const, id }, title, names: [title, slug], ending: '', weight: 0 })),
    ])
  }

  async function write(rows: (ListedAddress & { target: Target | null })[]): Promise<number> {
    let added = 0
    for (let start = 0; start < rows.length; start += AT_ONCE) {
      const some = rows.slice(start, start + AT_ONCE).map(({ path, target }) => ({ path, target }))
      // What leads somewhere already goes on doing so, unless the list says where to.
      const written = await db
        .insert(oldAddresses)
        .values(some)
        .onConflictDoUpdate({ target: oldAddresses.path, set: { target: sql`coalesce(excluded.target, ${oldAddresses.target})` } })
        .returning({ fresh: sql<boolean>`xmax = 0` })
      added += written.filter(row => row.fresh).length
      await nextTurn()
    }
    return added
  }

  async function note(): Promise<void> {
    const noted = missed
    missed = new Map()
    for (const [path, times] of noted)
      await db
        .update(oldAddresses)
        .set({ missed: sql`${oldAddresses.missed} + ${times}`, lastMissed: new Date() })
        .where(eq(oldAddresses.path, path))
  }

  const areAny = (ways: string[]) => ways.some(way => known.mayHave(way))

  const countWhere = async (where: ReturnType<typeof isNull>) =>
    (await db.select({ count: count() }).from(oldAddresses).where(where))[0]!.count

  return {
    /**
     * Takes in the addresses of a sitemap, a page, a table or plain lines; what leads somewhere already stays.
     *
     * @throws Problem 422 where no address is in it
     */
    async bring(text: string): Promise<{ read: number; added: number; left: number }> {
      const { addresses, left } = await reader.ask({ text, hosts: await site.hosts() })
      if (!addresses.length)
        throw new Problem(
          422,
          'No address of a site was found in that.',
          'Bring in a sitemap (XML), a page (HTML), or a table (CSV) with an address in its first column.',
        )
      const named = [...new Set(addresses.flatMap(({ leadsTo }) => leadsTo ?? []))]
      const places = new Map<string, Led>()
      for (const one of named) {
        const led = await recognising.ownPath(one)
        if (led) places.set(one, led)
      }
      const rows = addresses.map(address => ({ ...address, target: places.get(address.leadsTo ?? '')?.target ?? null }))
      return { read: addresses.length, added: await write(rows), left }
    },

    async list({ show, q, from, limit }: OldAddressQuery): Promise<OldAddressList> {
      const side = show === 'open' ? isNull(oldAddresses.target) : isNotNull(oldAddresses.target)
      const where = and(side, q ? ilike(oldAddresses.path, `%${q.replace(/[\\%_]/g, '\\$&')}%`) : undefined)
      // Those that people still ask for come first.
      const rows = await db
        .select()
        .from(oldAddresses)
        .where(where)
        .orderBy(desc(oldAddresses.missed), asc(oldAddresses.path))
        .limit(limit)
        .offset(from)
      const [total, open, led] = [
        await countWhere(where!),
        await countWhere(isNull(oldAddresses.target)),
        await countWhere(isNotNull(oldAddresses.target)),
      ]
      const asked = await countWhere(and(isNull(oldAddresses.target), sql`${oldAddresses.missed} > 0`)!)
      const places = await placesOf(rows.flatMap(({ target }) => target ?? []))
      const suggest = show === 'open' && rows.length ? await suggester() : undefined
      return {
        total,
        open,
        led,
        missed: asked,
        items: rows.map(({ path, target, missed: times, lastMissed }) => ({
          path,
          target,
          title: target && 'id' in target ? (places.get(target.id)?.title ?? '') : '',
          missed: times,
          lastMissed: lastMissed?.toISOString() ?? null,
          suggestion: suggest?.suggest(path) ?? null,
        })),
      }
    },

    /**
     * Leads an old address to something, or to nothing again.
     *
     * @throws Problem 404 where there is no such address, or nothing it could lead to
     */
    async lead(path: string, target: Target | null): Promise<void> {
      if (target && 'id' in target && !(await placesOf([target])).has(target.id))
        throw new Problem(404, 'Visitors find nothing there.', 'Choose a file that is given out, a page that is live, or a signpost.')
      const rows = await db
        .update(oldAddresses)
        .set({ target })
        .where(eq(oldAddresses.path, normalPath(path)))
        .returning({ path: oldAddresses.path })
      if (!rows.length) throw notFound('old address')
    },

    /** Leads every old address to what is suggested for it, where that is all but sure; gives which. */
    async takeSuggestions(): Promise<string[]> {
      const open = await db.select({ path: oldAddresses.path }).from(oldAddresses).where(isNull(oldAddresses.target))
      const suggest = await suggester()
      const found: { path: string; target: Target }[] = []
      for (const [index, { path }] of open.entries()) {
        const best = suggest.suggest(path)
        if (best && best.likeness >= SURE) found.push({ path, target: best.target })
        // Visitors come in between.
        if (index % AT_ONCE === 0) await nextTurn()
      }
      await write(found)
      return found.map(({ path }) => path)
    },

    /** Leads some to nothing again. */
    async loosen(paths: string[]): Promise<void> {
      for (let start = 0; start < paths.length; start += AT_ONCE)
        await db
          .update(oldAddresses)
          .set({ target: null })
          .where(among(oldAddresses.path, paths.slice(start, start + AT_ONCE)))
    },

    /** Forgets an address: whoever asks for it is told that nothing is there, and it is not counted. */
    async forget(path: string): Promise<void> {
      await db.delete(oldAddresses).where(eq(oldAddresses.path, normalPath(path)))
    },

    /** Whether an address may be one of them: no question to the database is needed to know that it is none. */
    mayLead: (asked: string): boolean => areAny(waysToRead(asked)),

    /**
     * Where an address leads that nothing else answers at; undefined where it is none of the old ones, or nothing took its place.
     *
     * @param asked path with its query
     */
    async find(asked: string): Promise<string | undefined> {
      const ways = waysToRead(asked)
      if (!areAny(ways)) return undefined
      const rows = await db.select().from(oldAddresses).where(among(oldAddresses.path, ways))
      const row = ways.flatMap(way => rows.find(each => each.path === way) ?? [])[0]
      if (!row) return undefined
      const place = row.target && 'id' in row.target ? (await placesOf([row.target])).get(row.target.id) : undefined
      if (place) return place.path
      if (missed.size < MOST_NOTED || missed.has(row.path)) missed.set(row.path, (missed.get(row.path) ?? 0) + 1)
      resting ??= setTimeout(() => {
        resting = undefined
        note().catch(laterTrouble('old addresses that were asked for could not be counted'))
      }, REST).unref()
      return undefined
    },

    /** Reads in which addresses there are. */
    warm: known.warm,

    async close(): Promise<void> {
      await known.settled()
      clearTimeout(resting)
      await note()
      await reader.close()
    },
  }
}
export type OldAddresses = ReturnType<typeof createOldAddresses>
