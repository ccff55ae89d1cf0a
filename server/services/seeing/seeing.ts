import type { IncomingMessage } from 'node:http'
import { LRUCache } from 'lru-cache'
import sharp from 'sharp'
import { hasPages, viewOf, type Contents } from '../../../core/files/fileContents'
import type { FileItem } from '../../../core/files/fileItem'
import { questionFor, termsOf } from '../../../core/find/question'
import { STEMS } from '../../../core/language/stems'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { targetFacts } from '../../../core/page/placeholders'
import { mayBeSeen } from '../../../core/see/mayBeSeen'
import { seePath, type SeeQuery } from '../../../core/see/seeAddress'
import { SEE_CSS } from '../../../core/see/seeCss'
import { factsLine, seePageHtml } from '../../../core/see/seePage'
import type { FoundPart, SeeFacts, SeenPage, Sight } from '../../../core/see/sight'
import { Problem } from '../../../core/problem'
import type { Bundles } from '../bundles/bundles'
import type { Directory } from '../delivery/directory'
import { wantedAt } from '../delivery/wanted'
import type { Events } from '../events'
import { behindOf } from '../../../core/gate/asks'
import type { Guard } from '../gates/guard'
import type { LibraryService } from '../library/library'
import { keptPages } from '../published/keptPages'
import type { Made } from '../published/packed'
import type { PublishedPages } from '../published/published'
import type { Looking } from '../reading/looking'
import type { SearchIndex } from '../reading/searchIndex'
import type { Findable } from '../shelves/findable'
import type { SiteService } from '../site/site'

/** Characters of contents that are kept, to be shown again with other marks. */
const KEPT_CONTENTS = 30_000_000
const MOST_CONTENTS = 400
/** Places told of those that were found in one file. */
const MOST_PARTS = 50
/** Other files of its folder that are named beside a file. */
const MOST_BESIDE = 12

interface Needs {
  directory: Directory
  library: LibraryService
  bundles: Bundles
  looking: Looking
  texts: SearchIndex
  site: SiteService
  published: PublishedPages
  findable: Findable
  guard: Guard
  events: Events
}

/** What visitors see of a file before they take it: its pages, its tables, its words. */
export function createSeeing({ directory, library, bundles, looking, texts, site, published, findable, guard, events }: Needs) {
  const pages = keptPages<Made>(events)
  const contents = new LRUCache<string, Promise<Contents>>({ max: MOST_CONTENTS, maxSize: KEPT_CONTENTS, sizeCalculation: () => 100_000 })
  events.on('bytes', () => contents.clear())

  function contentsOf(file: FileItem): Promise<Contents> {
    const known = contents.get(file.sha256) ?? looking.contents(file)
    contents.set(file.sha256, known)
    // What cannot be opened now may be when its bytes are others; what failed otherwise is tried again.
    known.catch(() => contents.delete(file.sha256))
    return known
  }

  async function pageOf(file: FileItem, query: SeeQuery, terms: string[], parts: FoundPart[]): Promise<SeenPage> {
    const count = file.facts.pages!
    const number = Math.min(query.page || parts[0]?.page || 1, count)
    // A page that cannot be drawn still has its words.
    const drawn = await looking.page(file, number).catch(unshown)
    const { width, height } = drawn ? await sharp(drawn).metadata() : {}
    return {
      kind: 'page',
      number,
      count,
      ...(width && height && { picture: { width, height } }),
      marks: drawn && terms.length ? await looking.places(file, number, terms) : [],
      words: (await texts.partOf(file.sha256, `Page ${number}`))?.trim() ?? '',
    }
  }

  async function sightOf(file: FileItem, query: SeeQuery, terms: string[], parts: FoundPart[]): Promise<Sight> {
    if (file.bundle) {
      const { members, total } = await bundles.details(file.id)
      const entries = members.map(({ path, size }) => ({ name: path, size, locked: false }))
      return { kind: 'contents', contents: { kind: 'entries', entries, cut: entries.length < total } }
    }
    const view = viewOf(file)
    if (view === 'pages' && file.facts.pages) return pageOf(file, query, terms, parts)
    if (view === 'picture' ? targetFacts(file).picture : view === 'sound' || view === 'film') return { kind: view as 'picture' }
    const shown = view === 'contents' && file.size ? await contentsOf(file).catch(unshown) : undefined
    const written = shown ?? (await texts.shown(file.sha256))
    if (written) return { kind: 'contents', contents: written }
    // A film that browsers cannot play still has its still.
    return { kind: targetFacts(file).picture ? 'picture' : 'none' }
  }

  async function besideOf(file: FileItem): Promise<SeeFacts['beside']> {
    const mayFind = await findable.test()
    if (!file.folder || !mayFind(file)) return undefined
    const [tree, facts] = [await library.folders.tree(), await site.get()]
    const folder = (await findable.folders()).get(file.folder)?.name
    if (folder === undefined) return undefined
    const { hits } = await library.search('', 'title', other => other.folder === file.folder && other.id !== file.id && mayFind(other))
    const { compare } = await site.speech()
    const files = hits
      .map(({ item }) => item)
      .sort((a, b) => compare(a.title, b.title))
      .slice(0, MOST_BESIDE)
    const { gates, of } = await guard.standing()
    return { folder, files: files.map(other => targetFacts(other, mayBeSeen(other, tree, facts), behindOf(of(other), gates))) }
  }

  async function write(file: FileItem, query: SeeQuery): Promise<Made> {
    const question = questionFor(query.find, STEMS[(await site.get()).language])
    const terms = termsOf(question)
    const found = terms.length && file.sha256 ? await texts.within(question, file.sha256, MOST_PARTS + 1) : []
    const parts = found.slice(0, MOST_PARTS).map((one): FoundPart => ({ ...one, ...pageNamed(file, one.part) }))
    const editions = file.bundle ? [] : await library.editions(file.id)
    const facts: SeeFacts = {
      file: targetFacts(file),
      terms,
      sight: await sightOf(file, query, terms, parts),
      found: { parts, cut: found.length > MOST_PARTS },
      editions: editions.filter(one => one.pinned && !one.withdrawn && one.number !== file.edition).reverse(),
      beside: await besideOf(file),
    }
    return published.made({
      slug: seePath(file.handle).slice(1),
      title: file.title,
      description: file.description || factsLine(facts.file, await site.speech()),
      picture: facts.file,
      files: [facts.file],
      parts: ['search', 'downloadButton', 'downloadLink', 'heading', 'bulletList', 'table', 'blockquote', 'fold'],
      css: SEE_CSS,
      write: (renderer, speech) => seePageHtml(facts, query, renderer, speech),
    })
  }

  /** @throws Problem 404 where visitors may not look at it, 410 where it is gone */
  async function visible(id: string): Promise<FileItem> {
    const [file] = await library.listed([id])
    if (!file || file.deleted) throw new VisitorProblem(410, 'gone')
    if (file.withdrawn) throw new VisitorProblem(410, 'withdrawn')
    if (!mayBeSeen(file, await library.folders.tree(), await site.get())) throw new VisitorProblem(404, 'noSee')
    return file
  }

  return {
    /** Whether there is, or was, a file with a handle that somebody may know of. */
    async isAt(request: IncomingMessage, handle: string): Promise<boolean> {
      const entry = await directory.find(handle, false)
      const wanted = entry && (await wantedAt(entry, bundles))
      return entry !== undefined && (!wanted || (await guard.mayKnow(request, wanted)))
    },

    /**
     * The page on which visitors look at a file, or where its address has moved to.
     *
     * @throws Problem 404 where there is none, 410 where the file is gone
     */
    async find(
      request: IncomingMessage,
      handle: string,
      query: SeeQuery,
    ): Promise<{ made: Made; file: string; own: boolean } | { moved: string }> {
      const entry = await directory.find(handle, false)
      const missing = () => new VisitorProblem(404, 'noFile')
      const wanted = entry && (await wantedAt(entry, bundles))
      if (!entry || (wanted && !(await guard.mayKnow(request, wanted)))) throw missing()
      if (entry.kind === 'moved') return { moved: entry.path.replace(/^\/files\//, '/see/') }
      if (entry.kind === 'gone' || entry.kind === 'nowhere') throw new VisitorProblem(410, 'gone')
      const { own } = await guard.admit(request, wanted!, missing)
      const made = await pages.get(`${entry.id} ${JSON.stringify(query)}`, async () => write(await visible(entry.id), query))
      return { made, file: entry.id, own }
    },
  }
}
export type Seeing = ReturnType<typeof createSeeing>

/** What cannot be opened or drawn is not shown; that it cannot be is no fault of this machine. */
function unshown(error: unknown): undefined {
  if (error instanceof Problem && error.status === 422) return undefined
  throw error
}

/** The page a part of a document is. */
function pageNamed(file: FileItem, part: string): { page?: number } {
  const number = hasPages(file) ? /^Page (\d+)$/.exec(part)?.[1] : undefined
  return number ? { page: Number(number) } : {}
}
