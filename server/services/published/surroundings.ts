import { behindOf } from '../../../core/gate/asks'
import type { SiteFacts } from '../../../core/page/document'
import type { Edge, EdgeDocuments } from '../../../core/page/edges'
import type { CatalogueFilling } from '../catalogues/filling'
import { onContactRules, type Contacts } from '../contacts/contacts'
import type { Events } from '../events'
import { kept } from '../kept'
import type { LookService } from '../looks/looks'
import type { PageService } from '../pages/pages'
import type { ShelfLooks } from '../shelves/shelfLooks'
import type { SiteService } from '../site/site'
import { knowledgeBehind, type KnowledgeNeeds } from './knowledge'
import { createKeptOf } from './privacy'

/** What is known of the site, and whether its visitors may look at files before they take them. */
export type SeenSite = SiteFacts & { see: boolean }

/** What the edges show besides themselves: catalogues whose values they hold, and files those name. */
interface AroundOf {
  catalogues: string[]
  files: string[]
}

export interface SurroundingsNeeds extends KnowledgeNeeds {
  pages: Pick<PageService, 'edges' | 'menu' | 'liveLetterboxes'>
  looks: Pick<LookService, 'style' | 'appearances'>
  shelfLooks: Pick<ShelfLooks, 'shown'>
  site: Pick<SiteService, 'get' | 'speech'>
  contacts: Pick<Contacts, 'rules'>
  filling: Pick<CatalogueFilling, 'edge'>
  events: Events
}

/**
 * What every page has around it and is drawn with, kept until a page goes live or a setting changes.
 *
 * @param changed is called where what stands around every page is other than it was, though no page went live
 */
export function createSurroundings(
  { pages, library, looks, shelfLooks, site, guard, contacts, filling, events }: SurroundingsNeeds,
  changed: () => void,
) {
  async function edgesWith(written: EdgeDocuments): Promise<{ edges: EdgeDocuments; of: AroundOf }> {
    const { titles } = await knowledgeBehind(null, { library, guard })
    const around = { titles, speech: await site.speech() }
    const filled = await Promise.all(
      Object.entries(written).map(async ([edge, document]) => [edge as Edge, await filling.edge(document, around)] as const),
    )
    return {
      edges: Object.fromEntries(filled.map(([edge, { document }]) => [edge, document])),
      of: { catalogues: filled.flatMap(([, { of }]) => of), files: filled.flatMap(([, { files }]) => files) },
    }
  }

  /** undefined while it is being read */
  let aroundOf: AroundOf | undefined

  async function readSiteFacts(): Promise<SeenSite> {
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
  const setting = kept(async () => {
    const facts = await readSiteFacts()
    return { facts, appearances: await looks.appearances(facts.style), shown: await shelfLooks.shown(), kept: await keptOf() }
  })
  for (const event of ['live', 'site', 'gates'] as const) events.on(event, setting.forget)
  function forget() {
    setting.forget()
    changed()
  }
  const forgetWhere = (touches: (of: AroundOf) => boolean) => {
    if (!aroundOf || touches(aroundOf)) forget()
  }
  for (const event of ['entries', 'catalogues'] as const)
    events.on(event, ids => forgetWhere(({ catalogues }) => ids.some(id => catalogues.includes(id.split('/')[0]!))))
  // The title of a file stands there as it was.
  events.on('library', ids => forgetWhere(({ files }) => ids.some(id => files.includes(id))))
  onContactRules(events, forget)

  return {
    /** What of the site is known, with its looks, and what its pages say that it keeps of visitors. */
    get: setting.get,

    facts: async (): Promise<SeenSite> => (await setting.get()).facts,

    /** Edges as they would be if these were written on them. */
    edges: async (written: EdgeDocuments): Promise<EdgeDocuments> => (await edgesWith(written)).edges,

    kept: keptOf,
  }
}
export type Surroundings = ReturnType<typeof createSurroundings>
