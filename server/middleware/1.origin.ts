import { defineEventHandler, getRequestHeader } from 'h3'
import { Problem } from '../../core/problem'

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS'])

/** Refuses changes that another site's page asked for (OWASP, Cross-Site Request Forgery: verifying origin). */
export default defineEventHandler((event) => {
  if (SAFE.has(event.method)) return
  const refuse = () => {
    throw new Problem(403, 'This request came from another site.', 'Open the desk and do it there.')
  }
  const fetchSite = getRequestHeader(event, 'sec-fetch-site')
  if (fetchSite && fetchSite !== 'same-origin' && fetchSite !== 'none') refuse()
  // A browser always names the origin of a cross-site change; a program without one cannot carry the owner's cookie unasked.
  const origin = getRequestHeader(event, 'origin')
  if (origin === undefined) return
  const hosts = [getRequestHeader(event, 'host'), getRequestHeader(event, 'x-forwarded-host')]
  if (!URL.canParse(origin) || !hosts.includes(new URL(origin).host)) refuse()
})
