import type { IncomingMessage, ServerResponse } from 'node:http'
import { headerOf } from '../../core/http/conditional'
import { meantPath } from '../../core/http/forgivingPath'
import { isBodyLeft, sendMessage } from '../error'
import type { Trough } from '../trough'
import { atLeisure } from './oneATurn'
import { noPage } from './page'
import { isSiteFile } from './siteFile'
import { noteTrouble } from './visitors'

const NO_PAGE = noPage()

/** Whether a path could be nothing but that of a page: all others have more than one part. */
const isPagePath = (path: string) => path.length > 1 && !path.includes('/', 1) && !isSiteFile(path)

/**
 * Says that there is no page, as `answerVisitor` would, where that is known in memory and nobody else waits to be told the same:
 * programs that try address after address ask for this more than for anything else.
 *
 * @returns whether it was said
 */
export function answerNothingAtOnce(trough: Trough, request: IncomingMessage, response: ServerResponse, path: string): boolean {
  const { knownSlugs, oldAddresses, published } = trough
  // The longer way says whether it is waited for.
  if (isBodyLeft(request)) return false
  if (!isPagePath(path) || !knownSlugs.isNowhere(path.slice(1))) return false
  if (meantPath(path) !== path || oldAddresses.mayLead(request.url!)) return false
  const message = published.knownMessage(NO_PAGE, headerOf(request.headers, 'accept-encoding'))
  if (!message || !atLeisure.now()) return false
  sendMessage(NO_PAGE, request, response, message)
  noteTrouble(trough, request, path, NO_PAGE)
  return true
}
