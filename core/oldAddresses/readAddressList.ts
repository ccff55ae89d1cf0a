import { Parser } from 'htmlparser2'
import papa from 'papaparse'
import { canBeAsked, normalPath } from './path'

/** An address a site had before, and, where the list says so, what it is to lead to now. */
export interface ListedAddress {
  path: string
  /** as it stands in the list */ leadsTo?: string
}

export interface ReadList {
  addresses: ListedAddress[]
  /** lines or links that are no address of this site */
  left: number
}

/** Longer ones no browser keeps (common practice: 2,000 characters). */
const LONGEST = 2000
const SOMEWHERE = 'http://site.invalid/'

/** The path of an address, wherever its site was; undefined where it is none of the web. */
function pathOf(text: string, base: string, hosts: ReadonlySet<string> | undefined): string | undefined {
  if (text.length > LONGEST || !URL.canParse(text, base)) return undefined
  const url = new URL(text, base)
  if (!/^https?:$/.test(url.protocol) || (hosts && !hosts.has(url.host))) return undefined
  const path = normalPath(url.pathname + url.search)
  return canBeAsked(path) ? path : undefined
}

function collect(found: ListedAddress[], left: number): ReadList {
  const byPath = new Map(found.map(address => [address.path, address]))
  return { addresses: [...byPath.values()], left }
}

/** The places of a sitemap (sitemaps.org protocol). */
function readSitemap(text: string): ReadList {
  const found: ListedAddress[] = []
  let [within, left] = ['', 0]
  let inside = false
  const parser = new Parser(
    {
      onopentag: name => void (inside = /^(?:\w+:)?loc$/.test(name)),
      ontext: words => void (within += inside ? words : ''),
      onclosetag: name => {
        if (!/^(?:\w+:)?loc$/.test(name)) return
        const path = pathOf(within.trim(), SOMEWHERE, undefined)
        if (path) found.push({ path })
        else left++
        within = ''
        inside = false
      },
    },
    { xmlMode: true, decodeEntities: true },
  )
  parser.end(text)
  return collect(found, left)
}

/** The links and pictures of a page that lie on the same site: at the hosts given, and written without one (RFC 3986, 5). */
function readPage(text: string, hosts: readonly string[]): ReadList {
  const references: string[] = []
  let base = SOMEWHERE
  const parser = new Parser({
    onopentag(name, attributes) {
      if (name === 'base' && attributes.href && URL.canParse(attributes.href, base)) base = new URL(attributes.href, base).href
      const reference =
        name === 'a' || name === 'area' || name === 'link'
          ? attributes.href
          : name === 'img' || name === 'iframe' || name === 'source' || name === 'embed'
            ? attributes.src
            : name === 'object'
              ? attributes.data
              : undefined
      if (reference !== undefined && !reference.trim().startsWith('#')) references.push(reference.trim())
    },
  })
  parser.end(text)
  const own = new Set([...hosts, new URL(base).host])
  const paths = references.map(reference => pathOf(reference, base, own))
  return collect(
    paths.flatMap(path => (path ? [{ path }] : [])),
    paths.filter(path => !path).length,
  )
}

/**
 * Lines or a table: the first column is the old address, the second, where there is one, the new. A line that names the columns is left
 * out.
 */
function readTable(text: string): ReadList {
  const { data } = papa.parse<string[]>(text, { skipEmptyLines: 'greedy' })
  const found: ListedAddress[] = []
  let left = 0
  for (const [index, [first = '', second = '']] of data.entries()) {
    const written = first.trim()
    // A word is the name of a column, or a slip: an address has a slash.
    const path = written.includes('/') ? pathOf(written, SOMEWHERE, undefined) : undefined
    if (path) found.push({ path, ...(second.trim() && { leadsTo: second.trim() }) })
    else if (index > 0) left++
  }
  return collect(found, left)
}

/**
 * Reads the addresses a site had before from a sitemap, a page of it, a table (CSV) or plain lines.
 *
 * @param hosts that the site had, or has
 */
export function readAddresses(text: string, hosts: readonly string[]): ReadList {
  const start = text.slice(0, 5000)
  if (/<(?:\w+:)?(?:urlset|sitemapindex)[\s>]/i.test(start)) return readSitemap(text)
  if (/<(?:!doctype html|html|head|body|a|div|p|ul)[\s>]/i.test(start)) return readPage(text, hosts)
  return readTable(text)
}
