import { chooseEncoding } from '../../../core/http/encoding'
import { told } from '../../../core/language/visitorProblem'
import type { SiteStyle } from '../../../core/look/siteStyle'
import { renderBlocks, renderMade, renderMessage, type MadePage, type SiteFacts } from '../../../core/page/document'
import { emptyDocument } from '../../../core/page/schema'
import { blockOf } from '../../../core/page/targets'
import type { Problem } from '../../../core/problem'
import { kept } from '../kept'
import type { PageService } from '../pages/pages'
import { createComposing, type Composable, type ComposingNeeds } from './composing'
import { createGathering, type GatheringNeeds } from './gathering'
import { knowledgeBehind } from './knowledge'
import { packed, type Encoding, type Made } from './packed'
import { rememberPages, type Rendered } from './remembered'
import { createSurroundings, type SurroundingsNeeds } from './surroundings'

/** What a page says that is nothing else. */
interface Words {
  title: string
  detail: string
}

/** A page that tells of a problem. */
export interface Message {
  bytes: Buffer
  encoding: Encoding
}

/** Problems that are told in the same words have one; what those are in the site's language hangs on the site. */
const messageKey = ({ status, title, detail }: Problem) => `${status}\n${title}\n${detail}`

type Needs = SurroundingsNeeds & GatheringNeeds & ComposingNeeds & { pages: PageService }

/** Live pages as visitors get them, rendered once and kept until something on them may have changed. */
export function createPublishedPages(needs: Needs) {
  const { pages, site, filling, events } = needs
  const remembered = rememberPages(events)
  const surroundings = createSurroundings(needs, () => {
    around.forget()
    remembered.forgetAll()
  })
  const gather = createGathering(needs, surroundings)
  const { compose, entryPage, previewEntry } = createComposing(needs, gather)

  /** What stands around every page, kept until any of it may have changed. */
  const around = kept(async () => {
    const facts = await surroundings.facts()
    return { facts, known: (await gather(facts)).known }
  })
  for (const event of ['live', 'site', 'library', 'downloads', 'folders', 'read', 'signposts', 'gates'] as const)
    events.on(event, around.forget)

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
    const { html, leans } = await compose(page, await surroundings.facts(), params, entered?.of)
    return { ...leans, as: packed(html) }
  }

  async function writeMade(page: MadePage): Promise<Made> {
    const { facts, known } = await around.get()
    const own = new Map(page.files.map(file => [file.id, file]))
    const html = renderMade(facts, page, { ...known, file: id => own.get(id) ?? known.file(id) })
    return packed(html)
  }

  async function writeMessage({ title, detail }: Words): Promise<Made> {
    const facts = await surroundings.facts()
    return packed(renderMessage(facts, title, detail, (await gather(facts)).known))
  }

  return {
    /** What the site keeps of its visitors, as its pages say. */
    kept: surroundings.kept,

    /**
     * The live page at a slug in the encoding the client likes best; undefined where none is.
     *
     * @param params what is asked of its lists, where anything is
     */
    async find(slug: string, acceptEncoding: string | undefined, params?: URLSearchParams) {
      const page = await remembered.page(slug, params, () => render(slug, params))
      return page?.as(acceptEncoding)
    },

    /** The same without a turn of the loop, where it is in memory in that encoding. */
    known: (slug: string, acceptEncoding: string | undefined) => remembered.known(slug)?.as.now(acceptEncoding),

    /** The draft of a page as visitors would get it; that of an edge with the home page. */
    async preview(id: string): Promise<string> {
      const { edge, catalogue, slug, title, description, picture, gate, draft } = await pages.get(id)
      const facts = await surroundings.facts()
      if (catalogue) return previewEntry(catalogue, { id, description, picture, gate, draft }, facts)
      if (!edge) return (await compose({ id, slug, title, description, picture, gate, document: draft }, facts)).html
      const home = (await pages.live('')) ?? homeWithout(facts)
      return (await compose(home, { ...facts, edges: { ...facts.edges, ...(await surroundings.edges({ [edge]: draft })) } })).html
    },

    /** A button, link or shelf alone, as visitors see it now; undefined where none of them does. */
    async placement(id: string): Promise<string | undefined> {
      const placed = await pages.livePlaced(id)
      const block = placed && blockOf(placed.document, id)
      if (!block) return undefined
      const facts = { ...(await surroundings.facts()), edges: {} }
      const { titles } = await knowledgeBehind(placed.gate, needs)
      const alone = { speech: await site.speech(), titles, params: new URLSearchParams(), slug: '' }
      const { document } = await filling.document({ type: 'doc', content: [block] }, alone)
      return renderBlocks(facts, document.content, (await gather(facts, { document, picture: null, gate: placed.gate })).known)
    },

    /** A live page as it would be in another style; the home page where none is at that slug, as it is written where it is not live yet. */
    async inStyle(style: SiteStyle, slug: string): Promise<string> {
      const facts = { ...(await surroundings.facts()), style }
      const page = (await pages.live(slug)) ?? (await pages.live('')) ?? (await writtenHome()) ?? homeWithout(facts)
      return (await compose(page, facts)).html
    },

    /** What stands in the frame of the site without being a page of its owner's. */
    made: writeMade,

    /** A page that says something to a visitor. */
    said: writeMessage,

    /** A page that tells a visitor of a problem, in the site's look and language, in the encoding the client likes best. */
    async message(problem: Problem, acceptEncoding?: string): Promise<Message> {
      const message = await remembered.message(messageKey(problem), async () => writeMessage(told(problem, await site.speech())))
      const { bytes } = await message(acceptEncoding)
      return { bytes, encoding: chooseEncoding(acceptEncoding) }
    },

    /** The same without a turn of the loop, where it is in memory in that encoding. */
    knownMessage(problem: Problem, acceptEncoding?: string): Message | undefined {
      const known = remembered.knownMessage(messageKey(problem))?.now(acceptEncoding)
      return known && { bytes: known.bytes, encoding: chooseEncoding(acceptEncoding) }
    },
  }
}
export type PublishedPages = ReturnType<typeof createPublishedPages>
