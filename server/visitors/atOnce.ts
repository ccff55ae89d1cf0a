import type { IncomingMessage, ServerResponse } from 'node:http'
import { namesTwoHosts } from '../../core/http/requestTarget'
import type { Trough } from '../trough'
import { measureAtOnce } from '../watch'
import { isForVisitors } from './audience'
import { answerFileAtOnce, isFilePath } from './file'
import { answerNothingAtOnce } from './nothing'
import { answerPageAtOnce } from './page'
import { noteTraffic, splitUrl } from './visitors'

/**
 * Answers a visitor in the turn of the loop in which they ask, before anything else is made of the request, where all it takes is in
 * memory. Whatever is wrong with a request is left to the longer way, which says so.
 *
 * @returns whether it was answered
 */
export function answerAtOnce(trough: Trough, request: IncomingMessage, response: ServerResponse): boolean {
  const url = request.url!
  if ((request.method !== 'GET' && request.method !== 'HEAD') || !url.startsWith('/') || !isForVisitors(url)) return false
  if (url.includes('%00') || namesTwoHosts(request.rawHeaders)) return false
  const measured = measureAtOnce(request, response, trough.metrics)
  const [path, search] = splitUrl(url)
  const isAnswered = isFilePath(path)
    ? answerFileAtOnce(trough, request, response, path, search)
    : answerPageAtOnce(trough, request, response, path.slice(1), search) || answerNothingAtOnce(trough, request, response, path)
  if (!isAnswered) return false
  noteTraffic(trough, request)
  measured()
  return true
}
