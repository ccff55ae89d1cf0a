import { setImmediate as nextTurn, setTimeout as wait } from 'node:timers/promises'
import { desc, eq, inArray } from 'drizzle-orm'
import { createQueue } from '../../../core/queue'
import { placementsOf, referencesIn, idOf } from '../../../core/page/targets'
import { filePath } from '../../../core/page/href'
import type { PageDocument } from '../../../core/page/schema'
import { COSTS, type Cost, type Finding, type WalkState, type WalkSummary } from '../../../core/walk/finding'
import type { Answer } from '../../../core/walk/facts'
import { CHECK_WORDS, walkPage, type PageFinding } from '../../../core/walk/walkPage'
import type { Database } from '../../db/connection'
import { editions, leftFindings, walks } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { Events } from '../events'
import type { PageService, WalkablePage } from '../pages/pages'
import type { Traffic } from '../traffic'
import type { Gathering, Ground, WalkedSide } from './gathering'
import type { Outside } from './outsideAnswers'
import type { WalkVisitor } from './visitor'

const DAY = 24 * 60 * 60 * 1000
/** Files are asked for a few at a time: visitors come first. */
const AT_ONCE = 4
/** Larger files are only asked about: verifying the store reads them. */
const MOST_READ = 20_000_000
/** Bytes that arrived whole are read again after this long. */
const TRUSTED = 7 * DAY
/** Changes often come in a row; they are walked together. */
const REST = 1500
const MOST_EARLIER = 60
/** While visitors come, no piece of a walk keeps them waiting for long; else what pages share is asked for once. */
const PAGES_AT_ONCE = { busy: 2, quiet: 16 }
/** While visitors come, a rest of so many times what a piece took. */
const REST_FOR_VISITORS = 2

/** What is known of a page since it was walked last. */
interface Walked {
  page: Finding['page']
  /** another one for another state of the page itself */
  stamp: string
  live: PageFinding[]
  draft: PageFinding[]
  placements: number
  /** identities of all that it leans on */
  leans: Set<string>
}

const stampOf = ({ slug, title, live, revision, waiting }: WalkablePage) => JSON.stringify([slug, title, live, waiting && revision])

/** Follows every placement of every live page as an anonymous visitor, and keeps what it finds up to date. */
export function createWalk({ db, pages, gathering, visitor, outside, traffic, events }: {
  db: Database
  pages: PageService
  gathering: Gathering
  /** none where no server runs, as in commands */
  visitor: WalkVisitor | undefined
  outside: Outside
  traffic: Traffic
  events: Events
}) {
  const walked = new Map<string, Walked>()
  const answers = new Map<string, Answer>()
  /** when bytes last arrived whole, by their SHA-256 */
  const trusted = new Map<string, number>()
  let at = new Date(0)
  let everything = true
  /** identities of files and pages that have changed since */
  let changed = new Set<string>()
  /** SHA-256 of contents that were looked into since */
  let looked = new Set<string>()

  async function ask(documents: PageDocument[], ground: Ground, known: Map<string, Answer>): Promise<void> {
    if (!visitor) return
    const waiting = (await gathering.meet(documents, ground)).filter(file => !known.has(file.id))
    const lane = async () => {
      for (let file = waiting.pop(); file; file = waiting.pop()) {
        const read = file.sha256 && file.size <= MOST_READ && Date.now() - (trusted.get(file.sha256) ?? 0) > TRUSTED
        const answer = await visitor.ask(filePath(file.handle), read ? file.sha256 : undefined)
        if (answer.whole) trusted.set(file.sha256, Date.now())
        known.set(file.id, answer)
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, lane))
    for (const { id, name } of gathering.signpostsOn(documents, ground)) if (!known.has(id)) known.set(id, await visitor.ask(`/to/${name}`))
  }

  /** The files whose contents were looked into since: what is known of them may be said of their buttons. */
  async function filesLookedInto(hashes: Set<string>): Promise<string[]> {
    if (!hashes.size) return []
    return (await db.selectDistinct({ id: editions.fileId }).from(editions).where(inArray(editions.sha256, [...hashes]))).map(row => row.id)
  }

  /** Walks what has changed since it was walked last. */
  async function freshen(): Promise<void> {
    const [all, touched, read] = [everything, changed, looked]
    everything = false
    changed = new Set()
    looked = new Set()
    try {
      for (const id of await filesLookedInto(read)) touched.add(id)
      const rows = await pages.walkable()
      await nextTurn()
      const there = new Set(rows.map(page => page.id))
      const gone = [...walked.keys()].filter(id => !there.has(id))
      const outdated = new Set(rows.filter(page => all || walked.get(page.id)?.stamp !== stampOf(page)).map(page => page.id))
      for (const id of [...gone, ...outdated]) touched.add(id)
      const concerned = rows.filter(({ id }) => outdated.has(id) || [...walked.get(id)?.leans ?? []].some(each => touched.has(each)))
      for (const id of all ? [...answers.keys()] : touched) answers.delete(id)
      await walkPages(concerned)
      for (const id of gone) walked.delete(id)
      if (all || concerned.length) at = new Date()
    }
    catch (error) {
      // What was not walked is still to be walked.
      everything ||= all
      for (const id of touched) changed.add(id)
      for (const sha256 of read) looked.add(sha256)
      throw error
    }
  }

  async function walkPages(rows: WalkablePage[]): Promise<void> {
    const ground = await gathering.ground()
    for (let start = 0, some = 0; start < rows.length; start += some) {
      some = traffic.comes ? PAGES_AT_ONCE.busy : PAGES_AT_ONCE.quiet
      const began = performance.now()
      await walkSome(rows.slice(start, start + some), ground)
      // Visitors come first.
      await wait(traffic.comes ? (performance.now() - began) * REST_FOR_VISITORS : 0)
    }
  }

  async function walkSome(rows: WalkablePage[], ground: Ground): Promise<void> {
    await nextTurn()
    const texts = await pages.documents(rows.map(page => page.id))
    const sides = rows.flatMap((page): (WalkedSide & { row: WalkablePage, side: 'live' | 'draft' })[] => {
      const text = texts.get(page.id)
      // It was taken offline meanwhile.
      if (!text) return []
      const of = { pageId: page.id, edge: page.edge !== null, row: page }
      return [{ ...of, document: text.live, side: 'live' as const }, ...text.draft ? [{ ...of, document: text.draft, side: 'draft' as const }] : []]
    })
    // Queries are answered without a turn of the event loop: a row of them would keep visitors waiting to its end.
    await nextTurn()
    await ask(sides.map(side => side.document), ground, answers)
    await outside.ask(sides.flatMap(side => referencesIn(side.document)).flatMap(reference => reference.kind === 'address' ? [reference.href] : []))
    await nextTurn()
    const facts = await gathering.facts(sides, ground, answers)
    for (const [index, { row, side, document }] of sides.entries()) {
      const found = walkPage(facts[index]!)
      await nextTurn()
      const leans = [...referencesIn(document).flatMap(reference => idOf(reference) ?? []), ...gathering.signpostsOn([document], ground).flatMap(({ file }) => file ?? [])]
      if (side === 'draft') {
        const known = walked.get(row.id)!
        known.draft = found
        for (const id of leans) known.leans.add(id)
      }
      else {
        walked.set(row.id, { page: { id: row.id, title: row.title, edge: row.edge }, stamp: stampOf(row), live: found, draft: [], placements: placementsOf(document).length, leans: new Set(leans) })
      }
    }
  }

  // Two at once would each take what the other has to walk.
  const inTurn = createQueue()
  const fresh = () => inTurn(freshen)

  async function findings(): Promise<Finding[]> {
    const left = new Map((await db.select().from(leftFindings)).map(({ key, because }) => [key, because]))
    const found = new Map<string, Finding>()
    for (const { page, live, draft } of walked.values()) {
      for (const [side, draftOnly] of [[live, false], [draft, true]] as const) {
        for (const one of side) if (!found.has(one.key)) found.set(one.key, { ...one, page, draftOnly, left: left.get(one.key) ?? null })
      }
    }
    return [...found.values()].sort((one, other) => COSTS.indexOf(one.cost) - COSTS.indexOf(other.cost))
  }

  function summarise(found: Finding[]): WalkSummary {
    const open = found.filter(finding => finding.left === null && !finding.draftOnly)
    const counts = Object.fromEntries(COSTS.map(cost => [cost, open.filter(finding => finding.cost === cost).length])) as Record<Cost, number>
    return { at: at.toISOString(), pages: walked.size, placements: [...walked.values()].reduce((sum, page) => sum + page.placements, 0), counts }
  }

  async function earlier(): Promise<WalkSummary[]> {
    const rows = await db.select().from(walks).orderBy(desc(walks.at)).limit(MOST_EARLIER)
    return rows.reverse().map(({ at: then, pages: pageCount, placements, counts }) => ({ at: then.toISOString(), pages: pageCount, placements, counts }))
  }

  let first: Promise<void> | undefined
  const service = {
    /** What is found now; what has changed is walked first. */
    async state(): Promise<WalkState> {
      // Two who look at once wait for the same first walk.
      if (at.getTime() === 0) await (first ??= service.run().finally(() => first = undefined))
      else await fresh()
      const found = await findings()
      return { ...summarise(found), findings: found, checks: [...CHECK_WORDS], outside: await outside.isOn(), earlier: await earlier() }
    },

    /** Findings by what they cost, as they were known last; without walking. */
    async counts(): Promise<Record<Cost, number> | null> {
      if (at.getTime() !== 0) return summarise(await findings()).counts
      return (await earlier()).at(-1)?.counts ?? null
    },

    /** Walks everything anew, and notes how it went. */
    async run(): Promise<void> {
      everything = true
      await fresh()
      const { at: now, ...summary } = summarise(await findings())
      await db.insert(walks).values({ ...summary, at: new Date(now) })
    },

    /** Walks everything where that is a day ago. */
    async runWhenDue(): Promise<void> {
      const [newest] = await db.select({ at: walks.at }).from(walks).orderBy(desc(walks.at)).limit(1)
      if (!newest || Date.now() - newest.at.getTime() >= DAY) await service.run()
    },

    /** What of a page's draft would stop visitors if it went live now. */
    async blocking(pageId: string): Promise<Finding[]> {
      const page = await pages.get(pageId)
      const ground = await gathering.ground()
      // Asked afresh: what was answered a moment ago may have been replaced since.
      const now = new Map<string, Answer>()
      await ask([page.draft], ground, now)
      const [facts] = await gathering.facts([{ pageId, edge: page.edge !== null, document: page.draft }], ground, now)
      return walkPage(facts!).filter(one => one.cost === 'blocked').map(one => ({ ...one, page: { id: pageId, title: page.title, edge: page.edge }, draftOnly: true, left: null }))
    },

    /** Some findings by their keys, as they are now. */
    async some(keys: string[]): Promise<Finding[]> {
      await fresh()
      const wanted = new Set(keys)
      return (await findings()).filter(finding => wanted.has(finding.key))
    },

    /** Leaves a finding as it is. */
    async leave(key: string, because: string): Promise<void> {
      await db.insert(leftFindings).values({ key, because }).onConflictDoUpdate({ target: leftFindings.key, set: { because } })
    },

    /** Shows a finding again that was left. */
    async takeUp(key: string): Promise<void> {
      await db.delete(leftFindings).where(eq(leftFindings.key, key))
    },

    /** Ends what is under way. */
    async close(): Promise<void> {
      clearTimeout(resting)
      await inTurn(async () => undefined)
    },
  }

  let resting: ReturnType<typeof setTimeout> | undefined
  /** What was walked once is kept up to date. */
  function later(): void {
    if (at.getTime() === 0) return
    clearTimeout(resting)
    resting = setTimeout(() => fresh().catch(laterTrouble('the walk could not be kept up to date')), REST)
    resting.unref()
  }
  events.on('library', (ids) => {
    for (const id of ids) changed.add(id)
    later()
  })
  events.on('signposts', (ids) => {
    for (const id of ids) changed.add(id)
    later()
  })
  events.on('read', (hashes) => {
    for (const sha256 of hashes) looked.add(sha256)
    later()
  })
  for (const event of ['site', 'folders'] as const) {
    events.on(event, () => {
      everything = true
      later()
    })
  }
  for (const event of ['uses', 'live'] as const) events.on(event, later)
  return service
}
export type Walk = ReturnType<typeof createWalk>
