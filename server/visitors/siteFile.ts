import { createHash } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import { FEED, feedXml } from '../../core/catalogue/feed'
import { isOpenGate } from '../../core/gate/gate'
import { represent, respond } from '../../core/http/respond'
import { SHARED_PICTURE } from '../../core/page/href'
import { robotsTxt, securityTxt, sitemapXml } from '../../core/page/siteFiles'
import { VisitorProblem } from '../../core/language/visitorProblem'
import { send } from '../services/delivery/send'
import type { Trough } from '../trough'

/** What programs look for on every site. */
type SiteFile = (trough: Trough, origin: string, query: URLSearchParams) => Promise<{ bytes: Buffer; contentType: string } | undefined>

const text = (contentType: string, words: string | undefined) =>
  words === undefined ? undefined : { contentType, bytes: Buffer.from(words) }

/** What stands for a live page without a picture where others link to it. */
const sharedPicture: SiteFile = async ({ pages, filling, sharedPictures, guard }, _origin, query) => {
  const slug = query.get('page') ?? ''
  const page = slug.includes('/') ? await filling.place(slug) : await pages.live(slug)
  // Its words are its title: what stands behind a gate has none that everybody may read.
  if (page && (await guard.gatesOf({ gate: page.gate, folder: null })).length) return undefined
  return page && { bytes: await sharedPictures.of(page.title), contentType: 'image/png' }
}

const SITE_FILES: Record<string, SiteFile> = {
  '/robots.txt': async (_trough, origin) => text('text/plain; charset=utf-8', robotsTxt(origin)),
  // Asked for by this name, and served as what it is.
  '/favicon.ico': ({ icon }) => icon.get(),
  [SHARED_PICTURE]: sharedPicture,
  '/sitemap.xml': async ({ pages, filling }, origin) =>
    text('application/xml; charset=utf-8', sitemapXml(origin, [...(await pages.livePlaces()), ...(await filling.places(isOpenGate))])),
  '/.well-known/security.txt': async ({ account }, origin) =>
    text('text/plain; charset=utf-8', securityTxt(await account.contact(), origin, new Date())),
}

/** New entries of a catalogue. */
const feedOf =
  (slug: string): SiteFile =>
  async ({ feeds, site }, origin) => {
    const feed = await feeds.at(slug, isOpenGate, await site.speech())
    return feed && text('application/atom+xml; charset=utf-8', feedXml({ ...feed, origin, site: (await site.get()).name }))
  }
const FEEDS = new RegExp(`^/([^/]+)/${FEED.replace('.', '\\.')}$`)

function siteFileAt(path: string): SiteFile | undefined {
  const fed = FEEDS.exec(path)?.[1]
  return fed ? feedOf(fed) : Object.hasOwn(SITE_FILES, path) ? SITE_FILES[path] : undefined
}
export const isSiteFile = (path: string): boolean => siteFileAt(path) !== undefined

/**
 * Answers with one of the files that programs look for on every site.
 *
 * @param host the one the request names, for a site that has no address of its own yet
 */
export async function answerSiteFile(
  trough: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  search: string,
  host = 'localhost',
): Promise<void> {
  const { address } = await trough.site.get()
  const found = await siteFileAt(path)!(
    trough,
    address || `${trough.visitors.isSecure(request) ? 'https' : 'http'}://${host}`,
    new URLSearchParams(search),
  )
  if (!found) throw new VisitorProblem(404, 'nowhere')
  const { bytes, contentType } = found
  const representation = represent({
    size: bytes.length,
    contentType,
    etag: `"${createHash('sha256').update(bytes).digest('hex').slice(0, 24)}"`,
    extra: {
      'Cache-Control': 'public, max-age=3600',
      'X-Content-Type-Options': 'nosniff',
      'Content-Security-Policy': "default-src 'none'",
    },
  })
  await send(
    response,
    respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, '')),
    ({ start, end }) => bytes.subarray(start, end),
  )
}
