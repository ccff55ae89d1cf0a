import { CLOSED_GATE } from '../../../core/gate/gate'
import { setImmediate as nextTurn } from 'node:timers/promises'
import { and, inArray, isNull, sql } from 'drizzle-orm'
import { dateInName, nameAdvice } from '../../../core/files/nameAdvice'
import type { FileItem } from '../../../core/files/fileItem'
import type { Speech } from '../../../core/language/speech'
import type { Appearance } from '../../../core/look/appearance'
import type { SiteStyle } from '../../../core/look/siteStyle'
import { groupBy } from '../../../core/group'
import { targetFacts } from '../../../core/page/placeholders'
import type { PageDocument } from '../../../core/page/schema'
import { entryIds, fileIds, folderIds, idOf, placementsOf, referencesIn, signpostIds } from '../../../core/page/targets'
import type { SignpostItem } from '../../../core/signposts/signpostItem'
import type { Answer, WalkFacts, WalkedCatalogue, WalkedFile, WalkedGate } from '../../../core/walk/facts'
import type { Database } from '../../db/connection'
import { files, folders } from '../../db/schema'
import { isOut } from '../files/items'
import { behindOf } from '../../../core/gate/asks'
import { timeOf } from '../../../core/gate/times'
import type { Guard } from '../gates/guard'
import type { KnownGate, Standing } from '../gates/standing'
import type { LibraryService } from '../library/library'
import type { LookService } from '../looks/looks'
import type { PageService } from '../pages/pages'
import type { Recognising } from '../recognising/recognising'
import type { Measuring } from '../lettering/measuring'
import type { Outside } from './outsideAnswers'
import { createUptake } from './uptake'
import { createVisitorsTurn } from './visitorsTurn'
import type { Signposts } from '../signposts/signposts'
import type { SiteService } from '../site/site'

/** One side of a page that is walked. */
export interface WalkedSide {
  pageId: string
  edge: boolean
  document: PageDocument
}

/** What is gathered once for all pages of one walk. */
export interface Ground {
  pages: Map<string, { id: string; slug: string; title: string; live: boolean; gate: string | null }>
  standing: Standing
  signposts: Map<string, SignpostItem>
  looks: Map<string, Appearance>
  style: SiteStyle
  speech: Speech
  catalogues: Map<string, WalkedCatalogue>
  /** files that were met so far, those in the bin too, and what is known of them */
  items: Map<string, FileItem>
  files: Map<string, WalkedFile>
}

interface Needs {
  db: Database
  library: LibraryService
  pages: PageService
  signposts: Signposts
  looks: LookService
  site: SiteService
  recognising: Recognising
  measuring: Measuring
  outside: Outside
  guard: Pick<Guard, 'standing' | 'ownCookies' | 'gatesOf'>
  /** entries that have pages of their own, by where those are */
  filling: {
    entryPages: (ids: string[]) => Promise<Map<string, { slug: string; title: string }>>
    walked: () => Promise<Map<string, WalkedCatalogue>>
  }
}

/** Why nobody gets through a gate; undefined where somebody does. */
function closedTo({ id, rule, hashes, givers }: KnownGate): string | undefined {
  // That is how it is meant; what is hidden by it is said.
  if (id === CLOSED_GATE) return undefined
  if (rule.kind === 'password' && !hashes.size) return 'It has no password: nobody gets through.'
  if (rule.kind === 'people' && !givers?.size) return 'Nobody is named who gets through.'
  return timeOf(rule, Date.now()) === 'late' ? 'Its last day is over: nobody gets through.' : undefined
}

/** Addresses in fields of a catalogue that are asked for: others would be kept waiting. */
const MOST_IN_FIELDS = 500

/** Gathers what the checks of some pages need. */
export function createGathering({ db, library, pages, signposts, looks, site, recognising, measuring, outside, guard, filling }: Needs) {
  const uptake = createUptake(db)

  async function betterName(file: FileItem): Promise<WalkedFile['betterName']> {
    // Most names are good, and what makes the best of a bad one takes longer to find out.
    const first = file.bundle ? undefined : nameAdvice({ ...file, dated: file.changed })
    const advice = first && !first.mild ? await library.adviceOn(file) : null
    return advice && !advice.mild ? { fileName: advice.better, reason: advice.reasons[0]! } : undefined
  }

  /** Files outside the bin by their titles, small letters. */
  async function titled(words: string[]): Promise<Map<string, { id: string; title: string }[]>> {
    const wanted = [...new Set(words.map(each => each.trim().toLowerCase()).filter(Boolean))]
    const rows = wanted.length
      ? await db
          .select({ id: files.id, title: files.title })
          .from(files)
          .where(and(isNull(files.deleted), inArray(sql`lower(${files.title})`, wanted)))
      : []
    return groupBy(rows, ({ title }) => title.toLowerCase())
  }

  async function foldersAmong(ids: string[]): Promise<Set<string>> {
    if (!ids.length) return new Set()
    return new Set(
      (
        await db
          .select({ id: folders.id })
          .from(folders)
          .where(and(inArray(folders.id, ids), isNull(folders.deleted)))
      ).map(row => row.id),
    )
  }

  /** The newest editions of files that were not withdrawn. */
  async function fallbacksOf(ids: string[]): Promise<Map<string, number>> {
    const found = new Map<string, number>()
    for (const id of ids) {
      const last = (await library.editions(id)).findLast(edition => !edition.withdrawn)
      if (last) found.set(id, last.number)
    }
    return found
  }

  return {
    async ground(): Promise<Ground> {
      const titles = new Map((await pages.titles()).map(page => [page.id, page]))
      // Each question is answered without a turn of the event loop, and visitors would wait for all of them.
      await nextTurn()
      const posts = new Map((await signposts.list()).map(item => [item.id, item]))
      await nextTurn()
      const style = await looks.style()
      return {
        standing: await guard.standing(),
        pages: titles,
        signposts: posts,
        looks: await looks.appearances(style),
        style,
        speech: await site.speech(),
        catalogues: await filling.walked(),
        items: new Map(),
        files: new Map(),
      }
    },

    /** The passes by which the walk gets to a file; empty where it is open. */
    passesFor: async (file: FileItem): Promise<string> => guard.ownCookies(await guard.gatesOf(file)),

    /** The signposts that documents lead to. */
    signpostsOn: (documents: PageDocument[], ground: Pick<Ground, 'signposts'>): SignpostItem[] =>
      signpostIds(documents.flatMap(referencesIn)).flatMap(id => ground.signposts.get(id) ?? []),

    /** Gets to know the files that documents lean on; gives those that visitors can have. */
    async meet(documents: PageDocument[], ground: Ground): Promise<FileItem[]> {
      const { items } = ground
      const ids = [
        ...new Set([...fileIds(documents.flatMap(referencesIn)), ...this.signpostsOn(documents, ground).flatMap(({ file }) => file ?? [])]),
      ]
      for (const file of await library.byIdUncounted(ids.filter(id => !items.has(id)))) items.set(file.id, file)
      return ids.flatMap(id => items.get(id) ?? []).filter(file => !isOut(file))
    },

    /** Addresses elsewhere that documents lead to, and entries of the catalogues laid out or listed there. */
    addressesOn(sides: WalkedSide[], ground: Pick<Ground, 'catalogues'>): string[] {
      const references = sides.flatMap(side => referencesIn(side.document))
      const catalogues = [...ground.catalogues.values()].filter(
        ({ id, layout }) =>
          sides.some(({ pageId }) => pageId === layout) || references.some(each => each.kind === 'catalogue' && each.id === id),
      )
      const inFields = catalogues.flatMap(({ fields, entries }) =>
        fields
          .filter(({ kind }) => kind === 'link')
          .flatMap(({ id }) => entries.flatMap(({ values }) => (typeof values[id] === 'string' ? [values[id]] : [])))
          .slice(0, MOST_IN_FIELDS),
      )
      return [...references.flatMap(reference => (reference.kind === 'address' ? [reference.href] : [])), ...inFields]
    },

    /** @param answers what visitors are answered, by the identity of the file */
    async facts(sides: WalkedSide[], ground: Ground, answers: ReadonlyMap<string, Answer>): Promise<WalkFacts[]> {
      const documents = sides.map(side => side.document)
      const references = documents.flatMap(referencesIn)
      const there = new Set<string>()
      const turn = createVisitorsTurn()
      for (const file of await this.meet(documents, ground)) {
        there.add(file.id)
        if (ground.files.has(file.id)) continue
        await turn()
        ground.files.set(file.id, {
          ...targetFacts(file),
          asks: behindOf(ground.standing.of(file), ground.standing.gates)?.asks,
          dated: dateInName(file.fileName),
          betterName: await betterName(file),
          answer: answers.get(file.id),
        })
      }
      await nextTurn()
      const used = await uptake.ofPlacements(documents.flatMap(placementsOf).map(({ id }) => id))
      const arrivals = await uptake.ofFiles([...there])
      await nextTurn()
      const foldersThere = await foldersAmong([...new Set(folderIds(references))])
      const own = await recognising.ownPlaces([...new Set(this.addressesOn(sides, ground))])
      await nextTurn()
      const namesakes = await titled(
        documents
          .flatMap(placementsOf)
          .filter(({ targets }) => targets.every(target => !there.has(idOf(target) ?? '')))
          .map(({ label }) => label),
      )
      await nextTurn()
      const measure = await measuring.in(ground.style)
      const fallbacks = await fallbacksOf(fileIds(references).filter(id => ground.items.get(id)?.withdrawn))
      const page = (id: string) => {
        const found = ground.pages.get(id)
        return found?.live
          ? { slug: found.slug, title: found.title, asks: behindOf(gatesOfPage(found), ground.standing.gates)?.asks }
          : undefined
      }
      const entered = await filling.entryPages(entryIds(references))
      const { catalogues } = ground
      const gatesOfPage = ({ gate }: { gate: string | null }) => ground.standing.of({ gate, folder: null })
      const walkedGate = (ids: readonly string[]): WalkedGate | undefined => {
        const all = ids.flatMap(id => ground.standing.gates.get(id) ?? [])
        const first = all.find(gate => closedTo(gate)) ?? all.find(({ rule }) => rule.hidden) ?? all[0]
        return first && { id: first.id, name: first.name, closed: closedTo(first), hidden: first.rule.hidden }
      }

      return sides.map(({ pageId, edge, document }): WalkFacts => ({
        pageId,
        edge,
        document,
        page,
        entry: id => entered.get(id),
        catalogue: id => catalogues.get(id),
        today: new Date().toISOString().slice(0, 10),
        ownCatalogue: [...catalogues.values()].find(({ layout }) => layout === pageId),
        gate: ({ kind, id }) => {
          const thing = kind === 'file' ? ground.items.get(id) : ground.pages.get(id)
          return thing && walkedGate('folder' in thing ? ground.standing.of(thing) : gatesOfPage(thing))
        },
        ownGate: gatesOfPage(ground.pages.get(pageId) ?? { gate: null })[0] ?? null,
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
              return foldersThere.has(reference.id)
            case 'signpost':
              return there.has(ground.signposts.get(reference.id)?.file ?? '')
            case 'page':
              return reference.id === pageId || page(reference.id) !== undefined
            case 'catalogue':
              return catalogues.has(reference.id)
            case 'entry':
              return entered.has(reference.id)
            default:
              return true
          }
        },
        ownPlace: href => own.get(href),
        fallback: id => fallbacks.get(id),
        namesake: words => {
          const [first, ...others] = namesakes.get(words.trim().toLowerCase()) ?? []
          return others.length ? undefined : first
        },
        outside: outside.known,
        uptake: placement => used.get(placement),
        arrivals: id => arrivals.get(id),
        measure,
        palette: ground.style.palette,
        dark: ground.style.dark,
        speech: ground.speech,
        look: id => ground.looks.get(id),
      }))
    },
  }
}
export type Gathering = ReturnType<typeof createGathering>
