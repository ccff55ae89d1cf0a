import type { H3Event } from 'h3'
import { shelfHref } from '../../core/page/shelf'
import { RESERVED_SLUGS } from '../../core/page/slug'
import { Problem } from '../../core/problem'
import { WALK_AGENT } from '../services/walk/visitor'
import type { Trough } from '../trough'
import { useTrough } from '../utils/trough'
import { answerFile } from './file'
import { answerPage } from './page'
import { answerPicture } from './picture'
import { answerShelf } from './shelf'

const FILES = '/files/'
const TO = '/to/'
const PICTURES = '/pictures/'
const SHELVES = shelfHref('')

/** Whether an address is for visitors: a file or a page, not the desk, its API or the desk's own assets. */
export function isForVisitors(path: string): boolean {
  if ([FILES, TO, SHELVES, PICTURES].some(start => path.startsWith(start))) return true
  const first = /^\/([^/?]*)/.exec(path)?.[1] ?? ''
  return !first.startsWith('_') && !RESERVED_SLUGS.includes(first)
}

/**
 * Answers a visitor.
 *
 * @throws Problem 404, 405 or 410
 */
export async function answerVisitor(event: H3Event): Promise<void> {
  const { req, res } = event.node
  if (req.method !== 'GET' && req.method !== 'HEAD') {
    res.setHeader('Allow', 'GET, HEAD')
    throw new Problem(405, 'Files and pages can only be read.', 'Use GET.')
  }
  const [path, search = ''] = req.url!.split('?', 2) as [string, string?]
  const trough = await useTrough()
  // The walk itself is nobody to make room for.
  if (req.headers['user-agent'] !== WALK_AGENT) trough.traffic.note()
  try {
    await answerAt(trough, event, path, search)
  }
  catch (error) {
    // What the site had before comes last: nothing that is there now is hidden by it.
    const place = error instanceof Problem && error.status === 404 ? await trough.oldAddresses.find(req.url!) : undefined
    if (place === undefined) throw error
    // 308 lasts and keeps the method (RFC 9110, section 15.4.9).
    res.writeHead(308, { 'Location': place, 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
  }
}

async function answerAt(trough: Trough, { node: { req, res } }: H3Event, path: string, search: string): Promise<void> {
  if (path.startsWith(FILES)) await answerFile(trough, req, res, path.slice(FILES.length), search)
  else if (path.startsWith(TO)) await answerFile(trough, req, res, path.slice(TO.length), search, { signpost: true })
  else if (path.startsWith(PICTURES)) await answerPicture(trough, req, res, path.slice(PICTURES.length), search)
  else if (path.startsWith(SHELVES)) await answerShelf(trough, req, res, path.slice(SHELVES.length), search)
  else await answerPage(trough, req, res, path.slice(1))
}
