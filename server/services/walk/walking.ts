import { setImmediate as nextTurn, setTimeout as wait } from 'node:timers/promises'
import { idOf, placementsOf, referencesIn } from '../../../core/page/targets'
import type { Answer } from '../../../core/walk/facts'
import type { Finding } from '../../../core/walk/finding'
import { walkByChecks, type PageFinding } from '../../../core/walk/walkPage'
import type { WalkablePage } from '../pages/liveReads'
import type { PageService } from '../pages/pages'
import type { Traffic } from '../traffic'
import type { Asking } from './asking'
import type { Gathering } from './gathering'
import type { Ground, WalkedSide } from './ground'
import type { Outside } from './outsideAnswers'
import { createVisitorsTurn } from './visitorsTurn'

/** While visitors come, no piece of a walk keeps them waiting for long; else what pages share is asked for once. */
const PAGES_AT_ONCE = { busy: 2, quiet: 16 }
/** While visitors come, a rest of so many times what a piece took. */
const REST_FOR_VISITORS = 2

/** What is known of a page since it was walked last. */
export interface Walked {
  page: Finding['page']
  /** another one for another state of the page itself */
  stamp: string
  live: PageFinding[]
  draft: PageFinding[]
  placements: number
  /** identities of all that it leans on */
  leans: Set<string>
}

export const stampOf = ({ slug, title, live, revision, waiting }: WalkablePage) => JSON.stringify([slug, title, live, waiting && revision])

interface Needs {
  pages: PageService
  gathering: Gathering
  outside: Outside
  traffic: Traffic
  ask: Asking
}

/** Walks pages a few at a time, visitors first. */
export function createWalking({ pages, gathering, outside, traffic, ask }: Needs) {
  async function walkSome(rows: WalkablePage[], ground: Ground, walked: Map<string, Walked>, answers: Map<string, Answer>): Promise<void> {
    await nextTurn()
    const texts = await pages.documents(rows.map(page => page.id))
    const sides = rows.flatMap((page): (WalkedSide & { row: WalkablePage; side: 'live' | 'draft' })[] => {
      const text = texts.get(page.id)
      // It was taken offline meanwhile.
      if (!text) return []
      const of = { pageId: page.id, edge: page.edge !== null, row: page }
      return [
        { ...of, document: text.live, side: 'live' as const },
        ...(text.draft ? [{ ...of, document: text.draft, side: 'draft' as const }] : []),
      ]
    })
    // Queries are answered without a turn of the event loop: a row of them would keep visitors waiting to its end.
    await nextTurn()
    await ask(
      sides.map(side => side.document),
      ground,
      answers,
    )
    await outside.ask(gathering.addressesOn(sides, ground))
    await nextTurn()
    const facts = await gathering.facts(sides, ground, answers)
    const turn = createVisitorsTurn()
    for (const [index, { row, side, document }] of sides.entries()) {
      const found: PageFinding[] = []
      for (const ofCheck of walkByChecks(facts[index]!)) {
        found.push(...ofCheck)
        await turn()
      }
      const leans = [
        ...referencesIn(document).flatMap(reference => idOf(reference) ?? []),
        ...gathering.signpostsOn([document], ground).flatMap(({ file }) => file ?? []),
        ...(facts[index]!.ownCatalogue ? [facts[index]!.ownCatalogue.id] : []),
      ]
      if (side === 'draft') {
        const known = walked.get(row.id)!
        known.draft = found
        for (const id of leans) known.leans.add(id)
      } else {
        const page = { id: row.id, title: row.title, edge: row.edge }
        walked.set(row.id, {
          page,
          stamp: stampOf(row),
          live: found,
          draft: [],
          placements: placementsOf(document).length,
          leans: new Set(leans),
        })
      }
    }
  }

  /** Walks some pages, and puts what is found into `walked`, what was answered into `answers`. */
  return async (rows: WalkablePage[], walked: Map<string, Walked>, answers: Map<string, Answer>): Promise<void> => {
    const ground = await gathering.ground()
    for (let start = 0, some = 0; start < rows.length; start += some) {
      some = traffic.comes ? PAGES_AT_ONCE.busy : PAGES_AT_ONCE.quiet
      const began = performance.now()
      await walkSome(rows.slice(start, start + some), ground, walked, answers)
      // Visitors come first.
      await wait(traffic.comes ? (performance.now() - began) * REST_FOR_VISITORS : 0)
    }
  }
}
