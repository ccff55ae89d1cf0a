import type { IncomingMessage } from 'node:http'
import type { H3Event } from 'h3'
import { headerOf } from '../../core/http/conditional'
import { meantPath } from '../../core/http/forgivingPath'
import { SEARCH_PATH } from '../../core/search/searchQuery'
import { shelfHref } from '../../core/shelf/shelf'
import { GateClosed } from '../../core/gate/closed'
import { Problem } from '../../core/problem'
import { WALK_AGENT } from '../services/walk/visitor'
import type { Trough } from '../trough'
import { useTrough } from '../utils/trough'
import { answerFile, decodedName, fileIsAt, isFilePath } from './file'
import { atLeisure, oneATurn } from './oneATurn'
import { answerPage, pageIsAt } from './page'
import { answerHandIn, isHandInPath } from './handIn'
import { answerClosed, answerPass, isPassPath } from './pass'
import { answerPicture } from './picture'
import { answerSee, isSeePath, seeIsAt } from './see'
import { answerShelf } from './shelf'
import { answerSearch } from './search'
import { answerFont, isFontPath } from './font'
import { answerSiteFile, isSiteFile } from './siteFile'

const PICTURES = '/pictures/'
const SHELVES = shelfHref('')

/** The walk itself is nobody to make room for. */
export function noteTraffic({ traffic }: Trough, { headers }: IncomingMessage): void {
  if (headers['user-agent'] !== WALK_AGENT) traffic.note()
}

/** The zips of a shelf: its form may be too long for an address. */
const isShelfPath = (path: string) => path.startsWith(SHELVES) && path !== SEARCH_PATH

export function splitUrl(url: string): [path: string, search: string] {
  const end = url.indexOf('?')
  return end < 0 ? [url, ''] : [url.slice(0, end), url.slice(end + 1)]
}

/**
 * Answers a visitor.
 *
 * @throws Problem 404, 405 or 410
 */
export async function answerVisitor(event: H3Event): Promise<void> {
  const { req, res } = event.node
  const [path, search] = splitUrl(req.url!)
  const mayPost = isShelfPath(path) || isPassPath(path) || isHandInPath(path)
  if (req.method !== 'GET' && req.method !== 'HEAD' && !(mayPost && req.method === 'POST')) {
    res.setHeader('Allow', mayPost ? 'GET, HEAD, POST' : 'GET, HEAD')
    throw new Problem(405, 'Files and pages can only be read.', 'Use GET.')
  }
  const trough = await useTrough()
  noteTraffic(trough, req)
  try {
    await answerAt(trough, event, path, search)
  } catch (error) {
    if (error instanceof GateClosed) {
      if (error.wanted) trough.occasions.note(req, { what: 'stopped', of: error.wanted, detail: error.gate })
      return answerClosed(trough, req, res, error)
    }
    if (!(error instanceof Problem && error.status === 404)) {
      noteTrouble(trough, req, path, error)
      throw error
    }
    await oneATurn()
    const place = await placeMeant(trough, req, path, search)
    if (place === undefined) {
      // Who has an address of the site before is led on at once, whatever else is tried meanwhile.
      await atLeisure()
      noteTrouble(trough, req, path, error)
      throw error
    }
    // 308 lasts and keeps the method (RFC 9110, section 15.4.9).
    res.writeHead(308, { 'Location': place, 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
  }
}

/** What browsers ask for by themselves, whatever a site has. */
const UNASKED = /^\/(?:apple-touch-icon[\w-]*\.png|browserconfig\.xml|\.well-known\/.*)$/

/** An address as it may be written down: one that was a secret of somebody's, as a link sent to them, without that. */
function tellable(path: string): string {
  const isSecret = isPassPath(path) || isHandInPath(path)
  return isSecret ? path.replace(/^(\/[^/]*\/).*/s, '$1…') : decodedName(path)
}

/** Its owner learns of what visitors asked for and did not get. */
export function noteTrouble({ occasions }: Trough, request: IncomingMessage, path: string, error: unknown): void {
  const status = error instanceof Problem ? error.status : 500
  if (status === 404 || status === 410) {
    if (!UNASKED.test(path)) occasions.note(request, { what: 'missing', of: tellable(path), detail: '' }, { told: true })
  } else if (status >= 500) occasions.note(request, { what: 'failed', of: tellable(path), detail: '' })
}

/** Where somebody wanted to go who asks for what is not there: what the address was meant to be, then what the site had before. */
async function placeMeant(trough: Trough, request: IncomingMessage, path: string, search: string): Promise<string | undefined> {
  const meant = meantPath(path)
  if (meant !== path && (await isThere(trough, request, meant))) return search ? `${meant}?${search}` : meant
  return trough.oldAddresses.find(request.url!)
}

const isThere = (trough: Trough, request: IncomingMessage, path: string): boolean | Promise<boolean> =>
  isFilePath(path)
    ? fileIsAt(trough, request, path)
    : isSeePath(path)
      ? seeIsAt(trough, request, path)
      : isSiteFile(path) || pageIsAt(trough, request, path.slice(1))

async function answerAt(trough: Trough, { node: { req, res } }: H3Event, path: string, search: string): Promise<void> {
  if (isFilePath(path)) await answerFile(trough, req, res, path, search)
  else if (path.startsWith(PICTURES)) await answerPicture(trough, req, res, decodedName(path.slice(PICTURES.length)), search)
  else if (isSeePath(path)) await answerSee(trough, req, res, path, search)
  else if (path === SEARCH_PATH) await answerSearch(trough, req, res, search)
  else if (isShelfPath(path)) await answerShelf(trough, req, res, path.slice(SHELVES.length), search)
  else if (isPassPath(path)) await answerPass(trough, req, res, path, search)
  else if (isHandInPath(path)) await answerHandIn(trough, req, res, path)
  else if (isFontPath(path)) await answerFont(trough, req, res, path)
  else if (isSiteFile(path)) await answerSiteFile(trough, req, res, path, search, headerOf(req.headers, 'host'))
  else await answerPage(trough, req, res, path.slice(1), search)
}
