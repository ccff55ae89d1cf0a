import { behindOf } from '../../../core/gate/asks'
import { CLOSED_GATE } from '../../../core/gate/gate'
import { timeOf } from '../../../core/gate/times'
import type { Answer, WalkFacts, WalkedGate } from '../../../core/walk/facts'
import type { KnownGate } from '../gates/standing'
import type { Ground, WalkedSide } from './ground'

/** What is gathered for the pages that are walked together. */
export interface Gathered extends Pick<WalkFacts, 'outside' | 'measure'> {
  /** files that visitors can have */
  there: ReadonlySet<string>
  folders: ReadonlySet<string>
  /** places of this site, by the whole addresses that lead to them */
  own: ReadonlyMap<string, ReturnType<WalkFacts['ownPlace']>>
  /** the newest editions that were not withdrawn, by their files */
  fallbacks: ReadonlyMap<string, number>
  /** where entries have pages of their own */
  entries: ReadonlyMap<string, { slug: string; title: string }>
  /** files by their titles, small letters */
  namesakes: ReadonlyMap<string, { id: string; title: string }[]>
  used: ReadonlyMap<string, NonNullable<ReturnType<WalkFacts['uptake']>>>
  arrivals: ReadonlyMap<string, NonNullable<ReturnType<WalkFacts['arrivals']>>>
  /** what visitors are answered, by the identity of the file or the signpost */
  answers: ReadonlyMap<string, Answer>
}

/** Why nobody gets through a gate; undefined where somebody does. */
function closedTo({ id, rule, hashes, givers }: KnownGate): string | undefined {
  // That is how it is meant; what is hidden by it is said.
  if (id === CLOSED_GATE) return undefined
  if (rule.kind === 'password' && !hashes.size) return 'It has no password: nobody gets through.'
  if (rule.kind === 'people' && !givers?.size) return 'Nobody is named who gets through.'
  return timeOf(rule, Date.now()) === 'late' ? 'Its last day is over: nobody gets through.' : undefined
}

/** What a walk knows of gates, and of who stands behind them. */
function gatesOn({ standing, pages, items }: Ground) {
  const ofPage = ({ gate }: { gate: string | null }) => standing.of({ gate, folder: null })
  const walked = (ids: readonly string[]): WalkedGate | undefined => {
    const all = ids.flatMap(id => standing.gates.get(id) ?? [])
    const first = all.find(gate => closedTo(gate)) ?? all.find(({ rule }) => rule.hidden) ?? all[0]
    return first && { id: first.id, name: first.name, closed: closedTo(first), hidden: first.rule.hidden }
  }
  return {
    asksOf: (page: { gate: string | null }) => behindOf(ofPage(page), standing.gates)?.asks,
    gate: ({ kind, id }: { kind: string; id: string }) => {
      const file = kind === 'file' ? items.get(id) : undefined
      if (file) return walked(standing.of(file))
      const page = kind === 'file' ? undefined : pages.get(id)
      return page && walked(ofPage(page))
    },
    own: (pageId: string) => ofPage(pages.get(pageId) ?? { gate: null })[0] ?? null,
  }
}

/** What the checks of one page need, out of what was gathered for all of them. */
export function factsOf({ pageId, edge, document }: WalkedSide, ground: Ground, gathered: Gathered): WalkFacts {
  const { there, answers, namesakes } = gathered
  const gates = gatesOn(ground)
  const page = (id: string) => {
    const found = ground.pages.get(id)
    return found?.live ? { slug: found.slug, title: found.title, asks: gates.asksOf(found) } : undefined
  }
  return {
    pageId,
    edge,
    document,
    page,
    entry: id => gathered.entries.get(id),
    catalogue: id => ground.catalogues.get(id),
    today: new Date().toISOString().slice(0, 10),
    ownCatalogue: [...ground.catalogues.values()].find(({ layout }) => layout === pageId),
    gate: gates.gate,
    ownGate: gates.own(pageId),
    signpost: id => {
      const found = ground.signposts.get(id)
      return found && { ...found, answer: answers.get(id) }
    },
    file: id => (there.has(id) ? ground.files.get(id) : undefined),
    away: reference => {
      // One that was withdrawn is where it was: bringing it back is not what it needs.
      if (reference.kind === 'file') return ground.items.get(reference.id)?.deleted ? ground.items.get(reference.id)!.title : undefined
      if (reference.kind === 'signpost') return ground.signposts.get(reference.id)?.title
      return reference.kind === 'page' ? ground.pages.get(reference.id)?.title : undefined
    },
    reachable: reference => {
      switch (reference.kind) {
        case 'file':
          return there.has(reference.id)
        case 'folder':
          return gathered.folders.has(reference.id)
        case 'signpost':
          return there.has(ground.signposts.get(reference.id)?.file ?? '')
        case 'page':
          return reference.id === pageId || page(reference.id) !== undefined
        case 'catalogue':
          return ground.catalogues.has(reference.id)
        case 'entry':
          return gathered.entries.has(reference.id)
        default:
          return true
      }
    },
    ownPlace: href => gathered.own.get(href),
    fallback: id => gathered.fallbacks.get(id),
    namesake: words => {
      const [first, ...others] = namesakes.get(words.trim().toLowerCase()) ?? []
      return others.length ? undefined : first
    },
    outside: gathered.outside,
    uptake: placement => gathered.used.get(placement),
    arrivals: id => gathered.arrivals.get(id),
    measure: gathered.measure,
    palette: ground.style.palette,
    dark: ground.style.dark,
    speech: ground.speech,
    look: id => ground.looks.get(id),
  }
}
