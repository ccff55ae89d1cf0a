import { headerOf, type RequestHeaders } from '../http/conditional'

/**
 * Whether nobody asked for it yet: a browser fetches ahead of a click that may never come (Sec-Purpose, Fetch Standard;
 * Purpose and X-Moz, as browsers said it before). Such requests are none of a user's (COUNTER Code of Practice, section 7.8).
 */
export function isAhead(headers: RequestHeaders): boolean {
  return ['sec-purpose', 'purpose', 'x-purpose', 'x-moz'].some(name => /prefetch|prerender|preview/i.test(headerOf(headers, name) ?? ''))
}
