import { escapeHtml } from './escape'
import { pageHref } from './href'

/**
 * Robots may read all that visitors may; the desk would only send them to its door, and what can be searched for is endless. Patterns end,
 * so that pages whose names begin alike stay open (RFC 9309, section 2.2.3).
 */
export const robotsTxt = (origin: string): string => `User-agent: *
Disallow: /desk$
Disallow: /desk/
Disallow: /api$
Disallow: /api/
Disallow: /shelves/
Disallow: /pass/
Disallow: /for/
Disallow: /*?list=

Sitemap: ${origin}/sitemap.xml
`

/** The live pages with the days they were published last, as the sitemap protocol 0.9 writes them. */
export function sitemapXml(origin: string, pages: { slug: string; published: Date }[]): string {
  const urls = pages.map(
    ({ slug, published }) =>
      `  <url><loc>${escapeHtml(origin + pageHref(slug))}</loc><lastmod>${published.toISOString().slice(0, 10)}</lastmod></url>`,
  )
  return `<?xml version="1.0" encoding="UTF-8"?>
<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">
${urls.join('\n')}
</urlset>
`
}

const YEAR = 365 * 24 * 60 * 60 * 1000

/** Whom to tell of a hole in the site (RFC 9116); undefined where nobody is known. Its end is a year after the day it is asked for. */
export function securityTxt(email: string | undefined, origin: string, now: Date): string | undefined {
  if (email === undefined) return undefined
  const expires = new Date(Math.floor((now.getTime() + YEAR) / 86_400_000) * 86_400_000 - 86_400_000)
  return `Contact: mailto:${email}
Expires: ${expires.toISOString().replace('.000', '')}
Canonical: ${origin}/.well-known/security.txt
`
}
