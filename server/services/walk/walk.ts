import { setImmediate as nextTurn } from 'node:timers/promises'
import { createQueue } from '../../../core/queue'
import type { Answer } from '../../../core/walk/facts'
import type { Cost, Finding, WalkState } from '../../../core/walk/finding'
import { CHECK_WORDS, walkPage } from '../../../core/walk/walkPage'
import type { Database } from '../../db/connection'
import { laterTrouble } from '../../log'
import type { Events } from '../events'
import type { PageService } from '../pages/pages'
import type { Traffic } from '../traffic'
import { createAsking } from './asking'
import { createFindings } from './findings'
import type { Gathering } from './gathering'
import type { Outside } from './outsideAnswers'
import { createStale } from './stale'
import type { WalkVisitor } from './visitor'
import { createWalking, stampOf, type Walked } from './walking'

const DAY = 24 * 60 * 60 * 1000
/** Milliseconds: changes often come in a row; they are walked together. */
const REST = 1500

/** Follows every placement of every live page as an anonymous visitor, and keeps what it finds up to date. */
export function createWalk({
  db,
  pages,
  gathering,
  visitor,
  outside,
  traffic,
  events,
}: {
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
  let at = new Date(0)
  const ask = createAsking(gathering, visitor)
  const walkPages = createWalking({ pages, gathering, outside, traffic, ask })
  const findings = createFindings(db)
  const stale = createStale(db, events, later)

  let resting: ReturnType<typeof setTimeout> | undefined
  /** What was walked once is kept up to date. */
  function later(): void {
    if (at.getTime() === 0) return
    clearTimeout(resting)
    resting = setTimeout(() => fresh().catch(laterTrouble('the walk could not be kept up to date')), REST)
    resting.unref()
  }

  /** Walks what has changed since it was walked last. */
  async function freshen(): Promise<void> {
    const taken = stale.take()
    const { everything, ids: touched } = taken
    try {
      for (const id of await stale.filesOf(taken.read)) touched.add(id)
      const rows = await pages.walkable()
      await nextTurn()
      const there = new Set(rows.map(page => page.id))
      const gone = [...walked.keys()].filter(id => !there.has(id))
      const outdated = new Set(rows.filter(page => everything || walked.get(page.id)?.stamp !== stampOf(page)).map(page => page.id))
      for (const id of [...gone, ...outdated]) touched.add(id)
      const concerned = rows.filter(({ id }) => outdated.has(id) || [...(walked.get(id)?.leans ?? [])].some(each => touched.has(each)))
      for (const id of everything ? [...answers.keys()] : touched) answers.delete(id)
      await walkPages(concerned, walked, answers)
      for (const id of gone) walked.delete(id)
      if (everything || concerned.length) at = new Date()
    } catch (error) {
      // What was not walked is still to be walked.
      stale.putBack(taken)
      throw error
    }
  }

  // Two at once would each take what the other has to walk.
  const inTurn = createQueue()
  const fresh = () => inTurn(freshen)
  const found = () => findings.of(walked.values())
  const summarise = (those: Finding[]) => findings.summarise(those, walked, at)

  let first: Promise<void> | undefined
  const service = {
    /** What is found now; what has changed is walked first. */
    async state(): Promise<WalkState> {
      // Two who look at once wait for the same first walk.
      if (at.getTime() === 0) await (first ??= service.run().finally(() => (first = undefined)))
      else await fresh()
      const now = await found()
      return {
        ...summarise(now),
        findings: now,
        checks: [...CHECK_WORDS],
        outside: await outside.isOn(),
        earlier: await findings.earlier(),
      }
    },

    /** Findings by what they cost, as they were known last; without walking. */
    async counts(): Promise<Record<Cost, number> | null> {
      if (at.getTime() !== 0) return summarise(await found()).counts
      return (await findings.earlier()).at(-1)?.counts ?? null
    },

    /** Walks everything anew, and notes how it went. */
    async run(): Promise<void> {
      stale.all()
      await fresh()
      await findings.note(summarise(await found()))
    },

    /** Walks everything where that is a day ago. */
    async runWhenDue(): Promise<void> {
      const newest = await findings.newest()
      if (!newest || Date.now() - newest.getTime() >= DAY) await service.run()
    },

    /** What of a page's draft would stop visitors if it went live now. */
    async blocking(pageId: string): Promise<Finding[]> {
      const page = await pages.get(pageId)
      const ground = await gathering.ground()
      // Asked afresh: what was answered a moment ago may have been replaced since.
      const now = new Map<string, Answer>()
      await ask([page.draft], ground, now)
      const [facts] = await gathering.facts([{ pageId, edge: page.edge !== null, document: page.draft }], ground, now)
      const of = { page: { id: pageId, title: page.title, edge: page.edge }, draftOnly: true, left: null }
      return walkPage(facts!)
        .filter(one => one.cost === 'blocked')
        .map(one => ({ ...one, ...of }))
    },

    /** Some findings by their keys, as they are now. */
    async some(keys: string[]): Promise<Finding[]> {
      await fresh()
      const wanted = new Set(keys)
      return (await found()).filter(finding => wanted.has(finding.key))
    },

    leave: findings.leave,
    takeUp: findings.takeUp,

    /** Ends what is under way. */
    async close(): Promise<void> {
      clearTimeout(resting)
      await inTurn(async () => undefined)
    },
  }
  return service
}
export type Walk = ReturnType<typeof createWalk>
