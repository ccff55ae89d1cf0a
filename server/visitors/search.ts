import type { IncomingMessage, ServerResponse } from 'node:http'
import { readSearchQuery } from '../../core/search/searchQuery'
import { keptWords } from '../../core/tally/occasions'
import type { Trough } from '../trough'
import { inTurn, sendMade } from './made'

/** `/shelves/find`: the files visitors find by what they ask for. */
export async function answerSearch(trough: Trough, request: IncomingMessage, response: ServerResponse, search: string): Promise<void> {
  const query = readSearchQuery(new URLSearchParams(search))
  const passed = await trough.guard.passed(request)
  const { made, any } = await inTurn(trough, request, () => trough.searching.find(query, passed))
  await sendMade(request, response, made, passed.size > 0)
  if (query.q && !any) trough.occasions.note(request, { what: 'unfound', of: keptWords(query.q), detail: '' })
}
