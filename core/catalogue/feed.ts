import { escapeHtml } from '../page/escape'
import { pageHref } from '../page/href'

/** The last part of the address of a catalogue's feed; no entry is there, since their addresses have no dots. */
export const FEED = 'feed.atom'
/** Entries a feed tells of: the newest. */
export const IN_FEED = 50

export interface FedEntry {
  /** from the top of the site */
  slug: string
  title: string
  /** some words of it; empty where there are none */
  summary: string
  /** when visitors first saw it, ISO 8601 */
  published: string
  /** when it went live as it is, ISO 8601 */
  updated: string
}

interface Feed {
  /** of the catalogue, from the top of the site */
  slug: string
  title: string
  /** name of the site */
  site: string
  /** scheme and host of the public site */
  origin: string
  /** the newest first */
  entries: FedEntry[]
  /** where there is none, ISO 8601 */
  since: string
}

/** Text as XML has it: what no document may hold is left out (XML 1.0, 2.2 Characters). */
const xml = (text: string): string => escapeHtml(text.replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, ''))

const entryXml = (origin: string, { slug, title, summary, published, updated }: FedEntry): string => {
  const address = escapeHtml(origin + pageHref(slug))
  return `  <entry>
    <id>${address}</id>
    <title>${xml(title)}</title>
    <link rel="alternate" href="${address}"/>
    <published>${published}</published>
    <updated>${updated}</updated>${summary ? `\n    <summary>${xml(summary)}</summary>` : ''}
  </entry>
`
}

/** New entries of a catalogue for whoever follows it, as Atom (RFC 4287). */
export function feedXml({ slug, title, site, origin, entries, since }: Feed): string {
  const own = escapeHtml(`${origin}${pageHref(slug)}/${FEED}`)
  const updated = entries.reduce((last, entry) => (entry.updated > last ? entry.updated : last), entries.length ? '' : since)
  return `<?xml version="1.0" encoding="UTF-8"?>
<feed xmlns="http://www.w3.org/2005/Atom">
  <id>${own}</id>
  <title>${xml(site ? `${title}: ${site}` : title)}</title>
  <link rel="self" href="${own}"/>
  <author><name>${xml(site || title)}</name></author>
  <updated>${updated}</updated>
${entries.map(entry => entryXml(origin, entry)).join('')}</feed>
`
}
