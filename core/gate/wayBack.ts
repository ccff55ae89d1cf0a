/** Characters of an address that somebody is sent back to. */
const LONGEST = 2000

/**
 * Where a visitor goes on to after a gate: an address of this site, or its first page. Whatever a browser would read as another
 * site is none (WHATWG URL: `//host`, `/\host`, and tabs and line ends, which it takes out before it reads).
 */
export function wayBack(to: string | null | undefined): string {
  // eslint-disable-next-line no-control-regex
  if (!to || to.length > LONGEST || !/^\/(?![/\\])/.test(to) || /[\u0000-\u0020\u007F\\]/.test(to)) return '/'
  // Only where this site has its own addresses; never the desk, and never a gate again.
  const url = new URL(to, 'http://site.invalid')
  if (url.host !== 'site.invalid' || /^\/(?:desk|api|pass)(?:\/|$)/i.test(url.pathname)) return '/'
  return url.pathname + url.search + url.hash
}
