import { setImmediate as nextTurn } from 'node:timers/promises'
import { and, isNull, sql } from 'drizzle-orm'
import { dateInName, nameAdvice } from '../../../core/files/nameAdvice'
import type { FileItem } from '../../../core/files/fileItem'
import { behindOf } from '../../../core/gate/asks'
import { groupBy } from '../../../core/group'
import { targetFacts } from '../../../core/page/placeholders'
import type { PageDocument } from '../../../core/page/schema'
import { entryIds, fileIds, folderIds, idOf, placementsOf, referencesIn, signpostIds } from '../../../core/page/targets'
import type { SignpostItem } from '../../../core/signposts/signpostItem'
import type { Answer, WalkFacts, WalkedCatalogue, WalkedFile } from '../../../core/walk/facts'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { files, folders } from '../../db/schema'
import { isOut } from '../files/items'
import type { Guard } from '../gates/guard'
import type { Measuring } from '../lettering/measuring'
import type { LibraryService } from '../library/library'
import type { LookService } from '../looks/looks'
import type { PageService } from '../pages/pages'
import type { Recognising } from '../recognising/recognising'
import type { Signposts } from '../signposts/signposts'
import type { SiteService } from '../site/site'
import type { Ground, WalkedSide } from './ground'
import type { Outside } from './outsideAnswers'
import { factsOf, type Gathered } from './sideFacts'
import { createUptake } from './uptake'
import { createVisitorsTurn } from './visitorsTurn'

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
          .where(and(isNull(files.deleted), among(sql`lower(${files.title})`, wanted)))
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
          .where(and(among(folders.id, ids), isNull(folders.deleted)))
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
      const gathered: Gathered = {
        there,
        folders: foldersThere,
        own,
        namesakes,
        used,
        arrivals,
        answers,
        fallbacks: await fallbacksOf(fileIds(references).filter(id => ground.items.get(id)?.withdrawn)),
        entries: await filling.entryPages(entryIds(references)),
        measure: await measuring.in(ground.style),
        outside: outside.known,
      }
      return sides.map(side => factsOf(side, ground, gathered))
    },
  }
}
export type Gathering = ReturnType<typeof createGathering>
