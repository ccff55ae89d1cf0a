import type { PageLink } from '~~/core/page/item'
import { ApiProblem } from './api'

/**
 * Does what other pages' links may stand in the way of: says which do, and does it all the same where the owner
 * wants to. False where not.
 */
export async function despiteLinks(act: (query: string) => Promise<unknown>): Promise<boolean> {
  try {
    await act('')
  }
  catch (error) {
    if (!(error instanceof ApiProblem) || !Array.isArray(error.extra.links)) throw error
    const places = [...new Set((error.extra.links as PageLink[]).map(({ pageTitle, label }) => `“${label || 'without a label'}” on ${pageTitle}`))]
    if (!window.confirm(`${places.join(', ')} ${places.length === 1 ? 'leads' : 'lead'} to this page. Go on all the same? Visitors will not see ${places.length === 1 ? 'it' : 'them'} then.`)) return false
    await act('?despite=yes')
  }
  return true
}
