import type { FileItem } from '../../../core/files/fileItem'
import { fillPictures } from '../../../core/look/fillPictures'
import type { PageFacts } from '../../../core/page/html'
import { targetFacts, tellsDownloads } from '../../../core/page/placeholders'
import type { PageDocument } from '../../../core/page/schema'
import { entryIds, fileIds, pageIds, referencesIn, shelvesIn, signpostIds } from '../../../core/page/targets'
import { mayBeSeen } from '../../../core/see/mayBeSeen'
import { drawnIcon, iconOf, iconPictures } from '../../../core/shelf/icons'
import { filesListed, flat, mapListing, type Listing } from '../../../core/shelf/listing'
import { shownBy } from '../../../core/shelf/shelfLook'
import type { ShelfSource } from '../../../core/shelf/shelfSource'
import type { CatalogueFilling } from '../catalogues/filling'
import { isOut } from '../files/items'
import type { LibraryService } from '../library/library'
import type { LookService } from '../looks/looks'
import type { PageService } from '../pages/pages'
import type { Shelves } from '../shelves/shelves'
import type { SiteIcons } from '../shelves/siteIcons'
import type { Signposts } from '../signposts/signposts'
import type { SiteService } from '../site/site'
import { knowledgeBehind, type KnowledgeNeeds } from './knowledge'
import type { Leans } from './remembered'
import type { SeenSite, Surroundings } from './surroundings'

export interface GatheringNeeds extends KnowledgeNeeds {
  pages: Pick<PageService, 'livePages'>
  library: LibraryService
  shelves: Pick<Shelves, 'listed'>
  siteIcons: Pick<SiteIcons, 'list'>
  signposts: Pick<Signposts, 'some'>
  looks: Pick<LookService, 'appearances'>
  site: Pick<SiteService, 'speech'>
  filling: Pick<CatalogueFilling, 'entryPages'>
}

/** What is gathered for, besides the edges. */
interface Laid {
  document: PageDocument
  /** identity of its file */
  picture: string | null
  gate: string | null
}

interface Gathered {
  known: PageFacts
  picture: ReturnType<PageFacts['file']>
  leans: Omit<Leans, 'entriesOf' | 'catalogues'>
}

/** Gathers what a page and its edges lean on, as it is now. */
export const createGathering =
  (needs: GatheringNeeds, surroundings: Pick<Surroundings, 'get'>) =>
  async ({ edges: { head, foot }, style, see }: SeenSite, page?: Laid): Promise<Gathered> => {
    const { pages, library, shelves, siteIcons, signposts, looks, site, filling } = needs
    const documents = [page?.document, head, foot].filter(document => document !== undefined)
    const references = documents.flatMap(referencesIn)
    const now = await surroundings.get()
    // Tried on, a style has other colours for its looks.
    const appearances = style === now.facts.style ? now.appearances : await looks.appearances(style)
    const filled = [...appearances.values()].flatMap(fillPictures)
    const posts = await signposts.some(signpostIds(references))
    const pointed = [...posts.values()].flatMap(({ file }) => file ?? [])
    const ids = [...new Set([...fileIds(references), ...pointed, ...filled, ...(page?.picture ? [page.picture] : [])])]
    const there = (await library.byId(ids)).filter(file => !isOut(file))
    const standing = documents.flatMap(shelvesIn)
    const { shown } = now
    const ways = standing.map(attrs => shownBy(attrs, id => shown.get(id)))
    // What may be looked at hangs on folders: they are asked where it matters.
    const sees = ways.some(({ parts }) => parts.includes('look')) || documents.some(document => JSON.stringify(document).includes('"see"'))
    const tree = sees ? await library.folders.tree() : undefined
    const { behind, mayBeKnown } = await knowledgeBehind(page?.gate ?? null, needs)
    const toFacts = (file: FileItem) => targetFacts(file, tree && mayBeSeen(file, tree, { see }), behind(file))
    const facts = new Map(there.filter(mayBeKnown).map(file => [file.id, toFacts(file)]))
    const listed = new Map<ShelfSource, Listing<FileItem>>()
    for (const { source } of standing) if (source) listed.set(source, await shelves.listed(source, false, mayBeKnown))
    const asked = standing.flatMap(({ source }) => (source && source.kind !== 'files' ? [source] : []))
    const icons = ways.some(({ parts }) => parts.includes('icon')) ? await siteIcons.list() : []
    const signs = (await library.byId(iconPictures(icons))).filter(file => !isOut(file) && mayBeKnown(file))
    const pictured = new Map(signs.map(file => [file.id, toFacts(file)]))
    const iconTree = icons.length ? await library.folders.tree() : undefined
    /** those that may be known of, with what their gates ask */
    const told = <Place extends { gate: string | null }>(places: Map<string, Place>) =>
      new Map(
        [...places].flatMap(([id, { gate, ...place }]) => {
          const closed = behind({ gate, folder: null })
          return closed?.hidden ? [] : [[id, { ...place, asks: closed?.asks }] as const]
        }),
      )
    const toEntries = entryIds(references)
    const entered = told(await filling.entryPages(toEntries))
    const led = told(await pages.livePages(pageIds(references)))
    const known: PageFacts = {
      speech: await site.speech(),
      file: id => facts.get(id),
      page: id => led.get(id),
      entry: id => entered.get(id),
      signpost: id => posts.get(id),
      shelf: source => mapListing(listed.get(source) ?? flat([]), toFacts),
      look: id => appearances.get(id),
      shelfLook: id => shown.get(id),
      icon: file => (iconTree ? drawnIcon(iconOf(file, icons, iconTree), id => pictured.get(id)) : undefined),
      kept: now.kept,
      now: Date.now(),
    }
    const files = [...there, ...signs, ...[...listed.values()].flatMap(filesListed)]
    const leans = {
      files: new Set([...ids, ...files.map(file => file.id)]),
      bytes: new Set(files.map(file => file.sha256)),
      lists: sees || icons.length > 0 || asked.length > 0,
      asksWords: asked.some(source => source.kind === 'found' && source.q.trim() !== ''),
      counts: tellsDownloads(JSON.stringify(documents)) || ways.some(({ facts }) => facts.includes('downloads')),
      timely: asked.some(({ within }) => within) || ways.some(({ parts }) => parts.includes('new')),
      entries: new Set(toEntries),
    }
    return { known, picture: page?.picture ? facts.get(page.picture) : undefined, leans }
  }
export type Gather = ReturnType<typeof createGathering>
