import { and, inArray, isNull, sql } from 'drizzle-orm'
import { dateIn, nameAdvice } from '../../../core/files/nameAdvice'
import { splitExtension } from '../../../core/files/fileName'
import type { FileItem } from '../../../core/files/item'
import { groupBy } from '../../../core/group'
import { targetFacts } from '../../../core/page/placeholders'
import type { PageDocument } from '../../../core/page/schema'
import { fileIds, folderIds, idOf, placementsOf, referencesIn } from '../../../core/page/targets'
import type { Answer, WalkFacts, WalkedFile } from '../../../core/walk/facts'
import type { Database } from '../../db/connection'
import { files, folders } from '../../db/schema'
import type { LibraryService } from '../library/library'
import type { LookService } from '../looks/looks'
import type { PageService } from '../pages/pages'
import type { Recognising } from '../pages/recognise'

/** One side of a page that is walked. */
export interface Side { pageId: string, document: PageDocument }

/** Gathers once what all checks of some pages need. */
export function createGathering(db: Database, library: LibraryService, pages: PageService, looks: LookService, recognising: Recognising) {
  async function betterName(file: FileItem): Promise<WalkedFile['betterName']> {
    // Most names are good, and what makes the best of a bad one takes longer to find out.
    const first = file.bundle ? undefined : nameAdvice({ ...file, dated: file.changed })
    const advice = first && !first.mild ? await library.adviceOn(file) : null
    return advice && !advice.mild ? { fileName: advice.better, reason: advice.reasons[0]! } : undefined
  }

  async function walked(file: FileItem, answer: Answer | undefined): Promise<WalkedFile> {
    const dated = dateIn(splitExtension(file.fileName)[0])?.iso
    return { ...targetFacts(file), dated, betterName: await betterName(file), answer }
  }

  /** Files outside the bin by their titles, small letters. */
  async function titled(words: string[]): Promise<Map<string, { id: string, title: string }[]>> {
    const wanted = [...new Set(words.map(each => each.trim().toLowerCase()).filter(Boolean))]
    const rows = wanted.length ? await db.select({ id: files.id, title: files.title }).from(files).where(and(isNull(files.deleted), inArray(sql`lower(${files.title})`, wanted))) : []
    return groupBy(rows, ({ title }) => title.toLowerCase())
  }

  /** @param answers what visitors are answered, by the identity of the file */
  return async (sides: Side[], answers: ReadonlyMap<string, Answer>): Promise<WalkFacts[]> => {
    const documents = sides.map(side => side.document)
    const references = documents.flatMap(referencesIn)
    const items = new Map((await library.byId([...new Set(fileIds(references))])).map(file => [file.id, file]))
    const there = new Map<string, WalkedFile>()
    for (const file of items.values()) if (!file.deleted) there.set(file.id, await walked(file, answers.get(file.id)))
    const folderList = [...new Set(folderIds(references))]
    const foldersThere = new Set(folderList.length ? (await db.select({ id: folders.id }).from(folders).where(and(inArray(folders.id, folderList), isNull(folders.deleted)))).map(row => row.id) : [])
    const allPages = new Map((await pages.titles()).map(page => [page.id, page]))
    const hrefs = references.flatMap(reference => reference.kind === 'address' ? [reference.href] : [])
    const own = await recognising.ownPlaces([...new Set(hrefs)])
    const namesakes = await titled(documents.flatMap(placementsOf).filter(({ targets }) => targets.every(target => !idOf(target) || !there.has(idOf(target)!))).map(({ label }) => label))
    const [appearances, style] = [await looks.appearances(), await looks.style()]

    return sides.map(({ pageId, document }): WalkFacts => {
      const page = (id: string) => {
        const found = allPages.get(id)
        return found?.live ? { slug: found.slug, title: found.title } : undefined
      }
      return {
        pageId, document,
        file: id => there.get(id),
        page,
        away: (reference) => {
          if (reference.kind === 'file') return items.get(reference.id)?.title
          return reference.kind === 'page' ? allPages.get(reference.id)?.title : undefined
        },
        reachable: (reference) => {
          switch (reference.kind) {
            case 'file': return there.has(reference.id)
            case 'folder': return foldersThere.has(reference.id)
            case 'page': return reference.id === pageId || page(reference.id) !== undefined
            default: return true
          }
        },
        ownPlace: href => own.get(href),
        namesake: (words) => {
          const [first, ...others] = namesakes.get(words.trim().toLowerCase()) ?? []
          return others.length ? undefined : first
        },
        palette: style.palette,
        look: id => appearances.get(id),
      }
    })
  }
}
export type Gathering = ReturnType<typeof createGathering>
