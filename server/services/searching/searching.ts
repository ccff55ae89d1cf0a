import type { FileItem } from '../../../core/files/fileItem'
import { withoutEndings } from '../../../core/find/question'
import { STEMS } from '../../../core/language/stems'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { resultsOf } from '../../../core/search/results'
import { FOUND_CSS, SEARCH_CSS } from '../../../core/search/searchCss'
import { searchPageHtml } from '../../../core/search/searchPage'
import { SEARCH_PATH, type SearchQuery } from '../../../core/search/searchQuery'
import { filesListed } from '../../../core/shelf/listing'
import { isWholeFolder } from '../../../core/shelf/shelfSource'
import { mayBeSeen } from '../../../core/see/mayBeSeen'
import type { Events } from '../events'
import { behindOf } from '../../../core/gate/asks'
import { isSaidOf } from '../../../core/search/saidOf'
import type { Guard } from '../gates/guard'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'
import { keptPages } from '../published/keptPages'
import type { Made } from '../published/packed'
import type { PublishedPages } from '../published/published'
import type { Findable } from '../shelves/findable'
import type { Shelves } from '../shelves/shelves'
import type { SiteService } from '../site/site'

interface Needs {
  library: LibraryService
  pages: PageService
  site: SiteService
  published: PublishedPages
  findable: Findable
  shelves: Shelves
  guard: Pick<Guard, 'standing'>
  events: Events
}
type Passes = (file: FileItem) => boolean
/** A page of what was found, and whether that was anything. */
export interface Found {
  made: Made
  any: boolean
}

/** What visitors find among the files that are public on live pages or in folders marked for it. */
export function createSearching({ library, pages, site, published, findable, shelves, guard, events }: Needs) {
  const made = keptPages<Found>(events)

  /** Whether a file lies in one of some folders, or below. */
  async function inFolders(ids: string[]): Promise<Passes> {
    const tree = await library.folders.tree()
    const among = new Set(ids.flatMap(id => tree.below(id).map(folder => folder.id)))
    return file => file.folder !== null && among.has(file.folder)
  }

  /** @throws Problem 404 where no visitor sees such a shelf */
  async function onShelf(placement: string): Promise<Passes> {
    const source = (await pages.liveShelf(placement))?.shelf.source
    if (!source) throw new VisitorProblem(404, 'noShelf')
    if (!isWholeFolder(source)) {
      const ids = new Set(filesListed(await shelves.listed(source, true)).map(({ id }) => id))
      return file => ids.has(file.id)
    }
    const inside = source.below === 'no' ? (file: FileItem) => file.folder === source.id : await inFolders([source.id])
    const pinned = new Set(source.pinned)
    return file => inside(file) || pinned.has(file.id)
  }

  async function write(query: SearchQuery, passed: ReadonlySet<string>): Promise<Found> {
    const { gates, of } = await guard.standing()
    const behind = (file: FileItem) => behindOf(of(file), gates, passed)
    const tests = [
      await findable.test(passed),
      ...(query.in ? [await onShelf(query.in)] : []),
      ...(query.within.length ? [await inFolders(query.within)] : []),
    ]
    const { language } = await site.get()
    const asked = STEMS[language] ? withoutEndings(query.q, STEMS[language]) : query.q
    const found = await library.search(query.q, query.sort, file => tests.every(passes => passes(file)), STEMS[language])
    // Words of what is behind a gate are looked for by nobody who has not passed it: by what pages say of it alone.
    const hits = query.q ? found.hits.filter(({ item, by }) => !behind(item) || (by !== 'inside' && isSaidOf(item, asked))) : found.hits
    const { matched } = found
    const [tree, facts, speech] = [await library.folders.tree(), await site.get(), await site.speech()]
    const named = await findable.folders(passed)
    const results = resultsOf(hits, query, named)
    const shown = (await matched(results.found)).map(({ match, ...item }) => ({ item, match }))
    const page = {
      results,
      shown,
      sees: (file: FileItem) => mayBeSeen(file, tree, facts),
      behind,
      placeOf: (file: FileItem) =>
        named
          .pathTo(file.folder)
          .map(({ name }) => name)
          .join(' / '),
    }
    const made = await published.made({
      slug: SEARCH_PATH.slice(1),
      title: query.q ? speech.say('foundFor', { words: query.q }) : speech.say('searchFiles'),
      description: '',
      files: [],
      parts: ['search', 'downloadLink', 'heading', 'bulletList', 'fold'],
      css: FOUND_CSS + SEARCH_CSS,
      write: () => searchPageHtml(page, query, speech),
    })
    return { made, any: hits.length > 0 }
  }

  return {
    /**
     * The page of what is found.
     *
     * @param passed the gates that whoever asks has passed
     * @throws Problem 404 where the shelf that is asked for is on no live page
     */
    find: (query: SearchQuery, passed: ReadonlySet<string> = new Set()): Promise<Found> =>
      // How often files were taken changes all the time.
      query.sort === '-downloads'
        ? write(query, passed)
        : made.get(JSON.stringify([query, [...passed].sort()]), () => write(query, passed)),
  }
}
export type Searching = ReturnType<typeof createSearching>
