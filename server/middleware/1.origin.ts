import { defineEventHandler, getRequestHeader } from 'h3'
import { Problem } from '../../core/problem'
import { useTrough } from '../utils/trough'

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS'])

/** Refuses changes that another site's page asked for (OWASP, Cross-Site Request Forgery: verifying origin). */
export default defineEventHandler(async event => {
  if (SAFE.has(event.method)) return
  const refuse = () => {
    throw new Problem(403, 'This request came from another site.', 'Open the desk and do it there.')
  }
  const fetchSite = getRequestHeader(event, 'sec-fetch-site')
  if (fetchSite && fetchSite !== 'same-origin' && fetchSite !== 'none') refuse()
  // A browser always names the origin of a cross-site change; a program without one cannot carry the owner's cookie unasked.
  const text = getRequestHeader(event, 'origin')
  if (text === undefined) return
  const hosts = [getRequestHeader(event, 'host'), getRequestHeader(event, 'x-forwarded-host')]
  const origin = URL.canParse(text) ? new URL(text) : undefined
  if (!origin || !hosts.includes(origin.host)) return refuse()
  // A page that came by http may be anybody's who stands in between; the other way round, a front server kept its https to itself.
  if (origin.protocol !== 'https:' && (await useTrough()).visitors.isSecure(event.node.req)) refuse()
})
