import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { LRUCache } from 'lru-cache'
import { entryData } from '../../../core/catalogue/linkedData'
import type { EntryFrame } from '../../../core/catalogue/entryFrame'
import { titleOf } from '../../../core/catalogue/values'
import { isFileKind } from '../../../core/catalogue/field'
import { entrySlug } from '../../../core/catalogue/catalogue'
import { chooseEncoding } from '../../../core/http/encoding'
import { represent, type Representation } from '../../../core/http/respond'
import { renderBlocks, renderMade, renderMessage, renderPage, type MadePage, type SiteFacts } from '../../../core/page/document'
import type { Edge, EdgeDocuments } from '../../../core/page/edges'
import type { PageFacts } from '../../../core/page/html'
import { pageHref } from '../../../core/page/href'
import { filesListed, flat, mapListing, type Listing } from '../../../core/shelf/listing'
import { isOpenGate } from '../../../core/gate/gate'
import { told } from '../../../core/language/visitorProblem'
import type { Problem } from '../../../core/problem'
import type { SiteStyle } from '../../../core/look/siteStyle'
import { fillPictures } from '../../../core/look/fillPictures'
import type { FileItem } from '../../../core/files/fileItem'
import { targetFacts, tellsDownloads } from '../../../core/page/placeholders'
import { emptyDocument, type PageDocument } from '../../../core/page/schema'
import type { ShelfSource } from '../../../core/shelf/shelfSource'
import { blockOf, entryIds, fileIds, pageIds, referencesIn, shelvesIn, signpostIds } from '../../../core/page/targets'
import { drawnIcon, iconOf, iconPictures } from '../../../core/shelf/icons'
import { shownBy } from '../../../core/shelf/shelfLook'
import { mayBeSeen } from '../../../core/see/mayBeSeen'
import type { Gated } from '../../../core/gate/standing'
import type { EntryIndex } from '../catalogues/entryIndex'
import type { Feeds } from '../catalogues/feeds'
import type { CatalogueFilling, Filled } from '../catalogues/filling'
import type { Events } from '../events'
import { kept } from '../kept'
import { isOut } from '../files/items'
import { behindOf } from '../../../core/gate/asks'
import type { Guard } from '../gates/guard'
import type { LibraryService } from '../library/library'
import type { LookService } from '../looks/looks'
import type { ShelfLooks } from '../shelves/shelfLooks'
import type { Shelves } from '../shelves/shelves'
import type { SiteIcons } from '../shelves/siteIcons'
import type { Signposts } from '../signposts/signposts'
import type { SiteService } from '../site/site'
import type { PageService } from '../pages/pages'
import { RULES_KEY as CONTACT_RULES_KEY, type Contacts } from '../contacts/contacts'
import { createKeptOf } from './privacy'

const encoders = {
  br: promisify((text: string, done: (error: Error | null, bytes: Buffer) => void) =>
    brotliCompress(text, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }, done),
  ),
  gzip: promisify<string, Buffer>(gzip),
  identity: async (text: string) => Buffer.from(text),
}
type Encoding = keyof typeof encoders
interface Variant {
  bytes: Buffer
  representation: Representation
}
/** A page in the encoding a client likes best, packed when it is first asked for so: few are in every one. */
export type Made = (acceptEncoding: string | undefined) => Promise<Variant>

/**
 * A page may load its own pictures and fonts and nothing else, and never runs script; what looks at a page from within it may ask this
 * site for more (robots.txt).
 */
const POLICY =
  "default-src 'none'; script-src 'none'; style-src 'unsafe-inline'; img-src 'self' data:; font-src 'self'; connect-src 'self'; media-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'self'"

export const PAGE_HEADERS = {
  'Content-Security-Policy': POLICY,
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'strict-origin-when-cross-origin',
}

/** A page as it was rendered, and the files whose facts went into it. */
interface Rendered {
  as: Made
  files: Set<string>
  bytes: Set<string>
  /** it lists what lies in a folder: any change of the library may change it */
  lists: boolean
  /** it lists files by words inside: what is read in any of them may change it */
  asksWords: boolean
  /** it says how often files were downloaded */
  counts: boolean
  /** what it shows hangs on what day it is */
  timely: boolean
  /** entries it leads to, and the one whose page it is */
  entries: Set<string>
  /** catalogues it lists entries of */
  entriesOf: Set<string>
  /** catalogues whose order, names and addresses it shows */
  catalogues: Set<string>
}

/** What a page says that is nothing else. */
interface Words {
  title: string
  detail: string
}

/** Milliseconds between two times at which pages that ask for words inside follow what was read. */
const WORDS_TOGETHER = 2000

/** How long a page is kept whose shelves hang on what day it is, in milliseconds. */
const HOUR = 3_600_000

interface Needs {
  pages: PageService
  library: LibraryService
  shelves: Shelves
  shelfLooks: ShelfLooks
  siteIcons: SiteIcons
  signposts: Signposts
  looks: LookService
  site: SiteService
  guard: Pick<Guard, 'standing'>
  contacts: Pick<Contacts, 'rules'>
  entryIndex: EntryIndex
  filling: CatalogueFilling
  feeds: Pick<Feeds, 'of'>
  events: Events
}

/** Live pages as visitors get them, rendered once and kept until something on them may have changed. */
export function createPublishedPages({
  pages,
  library,
  shelves,
  shelfLooks,
  siteIcons,
  signposts,
  looks,
  site,
  guard,
  contacts,
  entryIndex,
  filling,
  feeds,
  events,
}: Needs) {
  const rendered = new LRUCache<string, Rendered>({ max: 2000 })
  /** lists as somebody asked for them: there are as many as anybody likes */
  const asked = new LRUCache<string, Rendered>({ max: 300 })
  const messages = new LRUCache<string, Promise<Made>>({ max: 50 })
  // Counts the changes, so that what was rendered before one is not remembered after it.
  let age = 0
  const forget = (outdated: (page: Rendered) => boolean) => {
    age++
    messages.clear()
    for (const pages of [rendered, asked]) for (const [key, page] of pages.entries()) if (outdated(page)) pages.delete(key)
  }
  events.on('live', () => forget(() => true))
  events.on('site', () => forget(() => true))
  events.on('library', ids => forget(page => page.lists || ids.some(id => page.files.has(id))))
  events.on('downloads', ids => forget(page => page.counts && ids.some(id => page.files.has(id))))
  events.on('folders', () => forget(page => page.lists))
  events.on('entries', ids => {
    const touched = ids.map(id => id.split('/') as [string, string])
    const [catalogues, entries] = [new Set(touched.map(([catalogue]) => catalogue)), new Set(touched.map(([, entry]) => entry))]
    forget(page => [...page.entriesOf].some(id => catalogues.has(id)) || [...page.entries].some(id => entries.has(id)))
  })
  events.on('catalogues', ids => forget(page => ids.some(id => page.catalogues.has(id) || page.entriesOf.has(id))))
  // Files are read one after another: what lists them by words inside follows the first at once and then several together, or it would be
  // rendered for each.
  let followed = -Infinity
  let following: NodeJS.Timeout | undefined
  function follow() {
    following = undefined
    followed = performance.now()
    forget(page => page.asksWords)
  }
  events.on('read', hashes => {
    forget(page => hashes.some(sha256 => page.bytes.has(sha256)))
    const rest = followed + WORDS_TOGETHER - performance.now()
    if (rest <= 0) follow()
    else following ??= setTimeout(follow, rest).unref()
  })

  /** catalogues whose values stand around every page, and files they name; undefined while that is being read */
  let aroundOf: { catalogues: string[]; files: string[] } | undefined
  async function edgesWith(written: EdgeDocuments): Promise<{ edges: EdgeDocuments; of: NonNullable<typeof aroundOf> }> {
    const around = { titles: (await knowledgeBehind(null)).titles, speech: await site.speech() }
    const filled = await Promise.all(
      Object.entries(written).map(async ([edge, document]) => [edge as Edge, await filling.edge(document, around)] as const),
    )
    return {
      edges: Object.fromEntries(filled.map(([edge, { document }]) => [edge, document])),
      of: { catalogues: filled.flatMap(([, { of }]) => of), files: filled.flatMap(([, { files }]) => files) },
    }
  }

  async function readSiteFacts(): Promise<SiteFacts & { see: boolean }> {
    const style = await looks.style()
    const { gates, of } = await guard.standing()
    aroundOf = undefined
    const edges = await edgesWith(await pages.edges())
    aroundOf = edges.of
    return {
      ...(await site.get()),
      menu: (await pages.menu()).filter(({ gate }) => !behindOf(gate === null ? [] : of({ gate, folder: null }), gates)?.hidden),
      style,
      edges: edges.edges,
      // Not at the start: most sites do without.
      codeOf: style.paper.code ? (await import('../../../core/page/paperCode')).codeHtml : undefined,
    }
  }

  const keptOf = createKeptOf({ site, guard, pages, contacts })

  /** What every page has around it and is drawn with, kept until a page goes live or a setting changes. */
  const setting = kept(async () => {
    const facts = await readSiteFacts()
    return { facts, appearances: await looks.appearances(facts.style), shown: await shelfLooks.shown(), kept: await keptOf() }
  })
  for (const event of ['live', 'site', 'gates'] as const) events.on(event, setting.forget)
  function forgetAround(touches: (of: NonNullable<typeof aroundOf>) => boolean) {
    if (aroundOf && !touches(aroundOf)) return
    setting.forget()
    around.forget()
    forget(() => true)
  }
  for (const event of ['entries', 'catalogues'] as const)
    events.on(event, ids => forgetAround(({ catalogues }) => ids.some(id => catalogues.includes(id.split('/')[0]!))))
  // The title of a file stands there as it was.
  events.on('library', ids => forgetAround(({ files }) => ids.some(id => files.includes(id))))
  // How long contacts are kept stands on pages.
  events.on('settings', keys => {
    if (!keys.includes(CONTACT_RULES_KEY)) return
    setting.forget()
    forget(() => true)
  })
  const siteFacts = async () => (await setting.get()).facts

  /** What a page and its edges lean on, as it is now, with what of the library that is. */
  async function gather(
    { edges: { head, foot }, style, see }: SiteFacts & { see: boolean },
    page?: { document: PageDocument; /** identity of its file */ picture: string | null; gate: string | null },
  ) {
    const documents = [page?.document, head, foot].filter(document => document !== undefined)
    const references = documents.flatMap(referencesIn)
    const now = await setting.get()
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
    const stands = await guard.standing()
    // Who reads what stands behind a gate has passed it.
    const passed = new Set(page?.gate ? [page.gate] : [])
    const behind = (thing: Gated) => behindOf(stands.of(thing), stands.gates, passed)
    const toFacts = (file: FileItem) => targetFacts(file, tree && mayBeSeen(file, tree, { see }), behind(file))
    const mayBeKnown = (file: FileItem) => !behind(file)?.hidden
    const facts = new Map(there.filter(mayBeKnown).map(file => [file.id, toFacts(file)]))
    const listed = new Map<ShelfSource, Listing<FileItem>>()
    for (const { source } of standing) if (source) listed.set(source, await shelves.listed(source, false, mayBeKnown))
    const asked = standing.flatMap(({ source }) => (source && source.kind !== 'files' ? [source] : []))
    const icons = ways.some(({ parts }) => parts.includes('icon')) ? await siteIcons.list() : []
    const signs = (await library.byId(iconPictures(icons))).filter(file => !isOut(file) && mayBeKnown(file))
    const pictured = new Map(signs.map(file => [file.id, toFacts(file)]))
    const iconTree = icons.length ? await library.folders.tree() : undefined
    const toEntries = entryIds(references)
    const entered = new Map(
      [...(await filling.entryPages(toEntries))].flatMap(([id, { gate, ...place }]) => {
        const closed = behind({ gate, folder: null })
        return closed?.hidden ? [] : [[id, { ...place, asks: closed?.asks }] as const]
      }),
    )
    const led = new Map(
      [...(await pages.livePages(pageIds(references)))].flatMap(([id, { gate, ...place }]) => {
        const closed = behind({ gate, folder: null })
        return closed?.hidden ? [] : [[id, { ...place, asks: closed?.asks }] as const]
      }),
    )
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
    const told = [...there, ...signs, ...[...listed.values()].flatMap(filesListed)]
    const leans = {
      files: new Set([...ids, ...told.map(file => file.id)]),
      bytes: new Set(told.map(file => file.sha256)),
      lists: sees || icons.length > 0 || asked.length > 0,
      asksWords: asked.some(source => source.kind === 'found' && source.q.trim() !== ''),
      counts: tellsDownloads(JSON.stringify(documents)) || ways.some(({ facts }) => facts.includes('downloads')),
      timely: asked.some(({ within }) => within) || ways.some(({ parts }) => parts.includes('new')),
      entries: new Set(toEntries),
    }
    return { known, picture: page?.picture ? facts.get(page.picture) : undefined, leans }
  }

  type Composable = NonNullable<Awaited<ReturnType<PageService['live']>>>
  type Entry = NonNullable<Awaited<ReturnType<EntryIndex['at']>>>

  /** How whoever reads what stands behind a gate knows of other things. */
  async function knowledgeBehind(gate: string | null) {
    const { gates, of } = await guard.standing()
    const passed = new Set(gate ? [gate] : [])
    const mayBeKnown = (thing: Gated) => !behindOf(of(thing), gates, passed)?.hidden
    return {
      mayBeKnown,
      async titles(ids: string[]): Promise<Map<string, string>> {
        const there = (await library.byId(ids)).filter(file => !isOut(file) && mayBeKnown(file))
        return new Map(there.map(({ id, title }) => [id, title]))
      },
    }
  }

  async function frameOf({ catalogue, entry }: Entry, gate: string | null): Promise<EntryFrame> {
    const { mayBeKnown } = await knowledgeBehind(gate)
    return filling.frame(catalogue, entry, other => mayBeKnown({ gate: other, folder: null }))
  }

  /**
   * @param asked what is asked of its lists
   * @param of the entry whose page it is
   */
  async function compose(page: Composable, facts: SiteFacts & { see: boolean }, asked = new URLSearchParams(), of?: Entry) {
    const { titles } = await knowledgeBehind(page.gate)
    const around = { speech: await site.speech(), titles, params: asked, slug: page.slug }
    const filled: Filled = of
      ? await filling.entry(page.document, of.catalogue, of.entry, around)
      : await filling.document(page.document, around)
    const { known, picture, leans } = await gather(facts, { ...page, document: filled.document })
    const feedsOf = await feeds.of([...filled.lists, ...(of ? [of.catalogue.id] : [])], isOpenGate)
    const entry = of && {
      frame: await frameOf(of, page.gate),
      about: of.catalogue.type
        ? entryData(of.catalogue.type, page.title, {
            fields: of.catalogue.fields,
            values: of.entry.values,
            properties: of.catalogue.properties,
            address: facts.address,
            site: facts.name,
            url: facts.address + pageHref(page.slug),
            file: id => {
              const file = known.file(id)
              return file?.asks ? undefined : file
            },
          })
        : undefined,
    }
    return {
      html: renderPage(facts, { ...page, document: filled.document, picture, entry, feeds: feedsOf }, known),
      leans: {
        ...leans,
        entries: new Set([...leans.entries, ...(of ? [of.entry.id] : [])]),
        entriesOf: filled.lists,
        catalogues: new Set([
          ...filled.lists,
          ...(of ? [of.catalogue.id] : []),
          ...(leans.entries.size ? await cataloguesOf(leans.entries) : []),
        ]),
      },
    }
  }

  const cataloguesOf = async (ids: Set<string>) => [...(await entryIndex.some([...ids])).values()].map(({ catalogue }) => catalogue.id)

  /** An entry's page as one that is composed like others. */
  async function entryPage(path: string): Promise<{ page: Composable; of: Entry } | undefined> {
    const of = await entryIndex.at(path)
    const layout = of && (await filling.layout(of.catalogue.id))
    if (!layout) return undefined
    const { catalogue, entry } = of
    const pictured = catalogue.fields.find(
      ({ id, kind }) => isFileKind(kind) && kind.startsWith('picture') && entry.values[id] !== undefined,
    )
    const picture = pictured && [entry.values[pictured.id]].flat()[0]
    const { id, gate, description, document } = layout
    return {
      page: {
        id,
        gate,
        description,
        document,
        slug: entrySlug(catalogue.slug, entry.slug),
        title: titleOf(entry.values),
        picture: typeof picture === 'string' ? picture : layout.picture,
      },
      of,
    }
  }

  /** What entries are laid out in, with the first of them as it is written; with nothing where there is none. */
  async function previewEntry(
    catalogueId: string,
    { draft, ...layout }: Pick<Composable, 'id' | 'description' | 'picture' | 'gate'> & { draft: PageDocument },
    facts: SiteFacts & { see: boolean },
  ): Promise<string> {
    const catalogue = (await entryIndex.catalogue(catalogueId))!
    // The one that has most of what is laid out, as on the sheet.
    const [first] = (await entryIndex.entriesOf(catalogueId)).all
      .slice(0, 12)
      .sort((a, b) => Object.keys(b.values).length - Object.keys(a.values).length)
    const entry = { id: first?.id ?? '', slug: first?.slug ?? '', values: first?.values ?? {}, published: '' }
    const page = { ...layout, document: draft, slug: entrySlug(catalogue.slug, entry.slug), title: titleOf(entry.values) || catalogue.one }
    return (await compose(page, facts, undefined, { catalogue, entry })).html
  }

  /** What stands for the home page until there is one. */
  const homeWithout = ({ name }: SiteFacts): Composable => ({
    id: '',
    gate: null,
    slug: '',
    title: name,
    description: '',
    picture: null,
    document: emptyDocument(),
  })

  async function writtenHome(): Promise<Composable | undefined> {
    const home = (await pages.list()).find(({ slug, edge }) => slug === '' && !edge)
    return home && { ...home, document: (await pages.get(home.id)).draft }
  }

  async function render(slug: string, params: URLSearchParams | undefined): Promise<Rendered | undefined> {
    const entered = slug.includes('/') ? await entryPage(slug) : undefined
    const page = entered?.page ?? (await pages.live(slug))
    if (!page) return undefined
    const { html, leans } = await compose(page, await siteFacts(), params, entered?.of)
    return { ...leans, as: packed(html) }
  }

  async function encodeIn(name: Encoding, html: string, hash: string): Promise<Variant> {
    const bytes = await encoders[name](html)
    const representation = represent({
      size: bytes.length,
      contentType: 'text/html; charset=utf-8',
      // Each encoding is a representation of its own (RFC 9110, section 8.8.3.3).
      etag: `"${hash}-${name}"`,
      extra: {
        ...PAGE_HEADERS,
        'Cache-Control': 'no-cache',
        'Vary': 'Accept-Encoding',
        ...(name !== 'identity' && { 'Content-Encoding': name }),
      },
    })
    return { bytes, representation }
  }

  function packed(html: string): Made {
    const hash = createHash('sha256').update(html).digest('hex').slice(0, 24)
    const variants = new Map<Encoding, Promise<Variant>>()
    return acceptEncoding => {
      const name = chooseEncoding(acceptEncoding)
      const variant = variants.get(name) ?? encodeIn(name, html, hash)
      variants.set(name, variant)
      return variant
    }
  }

  /** What stands around every page, kept until any of it may have changed. */
  const around = kept(async () => {
    const facts = await siteFacts()
    return { facts, known: (await gather(facts)).known }
  })
  for (const event of ['live', 'site', 'library', 'downloads', 'folders', 'read', 'signposts', 'gates'] as const)
    events.on(event, around.forget)

  async function writeMade(page: MadePage): Promise<Made> {
    const { facts, known } = await around.get()
    const own = new Map(page.files.map(file => [file.id, file]))
    const html = renderMade(facts, page, { ...known, file: id => own.get(id) ?? known.file(id) })
    return packed(html)
  }

  async function writeMessage({ title, detail }: Words): Promise<Made> {
    const facts = await siteFacts()
    return packed(renderMessage(facts, title, detail, (await gather(facts)).known))
  }

  return {
    /** What the site keeps of its visitors, as its pages say. */
    kept: keptOf,

    /**
     * The live page at a slug in the encoding the client likes best; undefined where none is.
     *
     * @param params what is asked of its lists, where anything is
     */
    async find(slug: string, acceptEncoding: string | undefined, params?: URLSearchParams) {
      const [pages, key] = params ? [asked, `${slug}?${params}`] : [rendered, slug]
      let page = pages.get(key)
      if (!page) {
        const before = age
        page = await render(slug, params)
        if (!page) return undefined
        if (before === age) pages.set(key, page, page.timely ? { ttl: HOUR } : {})
      }
      return page.as(acceptEncoding)
    },

    /** The draft of a page as visitors would get it; that of an edge with the home page. */
    async preview(id: string): Promise<string> {
      const { edge, catalogue, slug, title, description, picture, gate, draft } = await pages.get(id)
      const facts = await siteFacts()
      if (catalogue) return previewEntry(catalogue, { id, description, picture, gate, draft }, facts)
      if (!edge) return (await compose({ id, slug, title, description, picture, gate, document: draft }, facts)).html
      const home = (await pages.live('')) ?? homeWithout(facts)
      return (await compose(home, { ...facts, edges: { ...facts.edges, ...(await edgesWith({ [edge]: draft })).edges } })).html
    },

    /** A button, link or shelf alone, as visitors see it now; undefined where none of them does. */
    async placement(id: string): Promise<string | undefined> {
      const placed = await pages.livePlaced(id)
      const block = placed && blockOf(placed.document, id)
      if (!block) return undefined
      const facts = { ...(await siteFacts()), edges: {} }
      const { titles } = await knowledgeBehind(placed.gate)
      const around = { speech: await site.speech(), titles, params: new URLSearchParams(), slug: '' }
      const { document } = await filling.document({ type: 'doc', content: [block] }, around)
      return renderBlocks(facts, document.content, (await gather(facts, { document, picture: null, gate: placed.gate })).known)
    },

    /** A live page as it would be in another style; the home page where none is at that slug, as it is written where it is not live yet. */
    async inStyle(style: SiteStyle, slug: string): Promise<string> {
      const facts = { ...(await siteFacts()), style }
      const page = (await pages.live(slug)) ?? (await pages.live('')) ?? (await writtenHome()) ?? homeWithout(facts)
      return (await compose(page, facts)).html
    },

    /** What stands in the frame of the site without being a page of its owner's. */
    made: writeMade,

    /** A page that says something to a visitor. */
    said: writeMessage,

    /** A page that tells a visitor of a problem, in the site's look and language, in the encoding the client likes best. */
    async message(problem: Problem, acceptEncoding?: string): Promise<{ bytes: Buffer; encoding: Encoding }> {
      const words = told(problem, await site.speech())
      const key = `${words.title}\n${words.detail}`
      // Many ask for what is not there at once: it is written for all of them together.
      let message = messages.get(key)
      if (!message) {
        message = writeMessage(words)
        messages.set(key, message)
        message.catch(() => messages.delete(key))
      }
      const { bytes } = await (await message)(acceptEncoding)
      return { bytes, encoding: chooseEncoding(acceptEncoding) }
    },
  }
}
export type PublishedPages = ReturnType<typeof createPublishedPages>
