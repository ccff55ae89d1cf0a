import { escapeHtml } from './escape'
import { filePath, pageHref, pictureHref, sharedPictureHref } from './href'
import { SHARED_SIZE } from './sharedPicture'
import type { TargetFacts } from './placeholders'

export interface PageMeta {
  /** name of the site */
  site: string
  /** scheme and host of the public site; empty until known */
  address: string
  /** left out where the page has no address of its own */
  slug?: string
  title: string
  description?: string
  /** page whose drawn picture stands for this one where it has no picture; itself, where nothing is said */
  sharedSlug?: string
  /** shown with links to the page */
  picture?: TargetFacts
  /** files that visitors get from the page */
  files?: TargetFacts[]
  /** the page that lists it, where it is one of many */
  list?: { title: string; slug: string }
  /** what can be followed from it: addresses from the top of the site */
  feeds?: { title: string; href: string }[]
  /** what it is about, as schema.org says it; its papers are named there */
  about?: object
}

/** Pixels across of the picture that goes with a link: previews are drawn some 600 wide, on screens of up to twice as many pixels. */
const SHARED_WIDTH = 1440

/** JSON that may stand in HTML: nothing in it ends the element (HTML, restrictions for contents of script elements). */
const inHtml = (value: unknown): string => JSON.stringify(value).replace(/</g, '\\u003c')

/** What a page is, for programs (schema.org): the site, the way to the page, and the documents on it. */
function linkedData({ site, address, slug, title, files = [], list, about }: PageMeta): unknown[] {
  const home = `${address}/`
  const way = [
    { name: site, item: home },
    ...(list?.slug ? [{ name: list.title, item: address + pageHref(list.slug) }] : []),
    ...(slug ? [{ name: title, item: address + pageHref(slug) }] : []),
  ]
  return [
    ...(slug === '' ? [{ '@type': 'WebSite', 'name': site, 'url': home }] : []),
    { '@type': 'BreadcrumbList', 'itemListElement': way.map((step, index) => ({ '@type': 'ListItem', 'position': index + 1, ...step })) },
    ...(about ? [about] : []),
    ...(about ? [] : files).map(file => ({
      '@type': 'DigitalDocument',
      'name': file.title,
      'url': address + filePath(file.handle),
      'encodingFormat': file.mediaType,
      ...(file.description && { description: file.description }),
    })),
  ]
}

/** For search engines, and for the previews that other programs make of a link (the Open Graph protocol). */
export function metaHtml(meta: PageMeta): string {
  const { site, address, slug, title, description = '', picture, sharedSlug = slug } = meta
  const named: [attribute: 'name' | 'property', of: string, content: string][] = [
    ['property', 'og:title', title],
    ['property', 'og:type', 'website'],
    ['property', 'og:site_name', site],
  ]
  if (description) named.unshift(['name', 'description', description], ['property', 'og:description', description])
  // Whoever shows the link stands on another host: these have to be whole addresses.
  if (address && slug !== undefined) named.push(['property', 'og:url', address + pageHref(slug)])
  if (address && picture?.picture) {
    const { width, height } = picture.picture
    const scale = width ? Math.min(1, SHARED_WIDTH / width) : 1
    // Not every program that shows links knows WebP.
    named.push(
      ['property', 'og:image', `${address}${pictureHref(picture, SHARED_WIDTH)}&jpeg`],
      ['property', 'og:image:type', 'image/jpeg'],
    )
    if (width && height)
      named.push(
        ['property', 'og:image:width', String(Math.round(width * scale))],
        ['property', 'og:image:height', String(Math.round(height * scale))],
      )
    named.push(['property', 'og:image:alt', picture.description || picture.title], ['name', 'twitter:card', 'summary_large_image'])
  } else if (address && slug !== undefined) {
    named.push(['property', 'og:image', address + sharedPictureHref(sharedSlug!)], ['property', 'og:image:type', 'image/png'])
    named.push(['property', 'og:image:width', String(SHARED_SIZE.width)], ['property', 'og:image:height', String(SHARED_SIZE.height)])
    named.push(['property', 'og:image:alt', title], ['name', 'twitter:card', 'summary_large_image'])
  }
  const tags = named.map(([attribute, of, content]) => `\n<meta ${attribute}="${of}" content="${escapeHtml(content)}">`)
  for (const feed of meta.feeds ?? [])
    tags.push(`\n<link rel="alternate" type="application/atom+xml" title="${escapeHtml(feed.title)}" href="${escapeHtml(feed.href)}">`)
  if (address && slug !== undefined) {
    tags.push(`\n<link rel="canonical" href="${escapeHtml(address + pageHref(slug))}">`)
    tags.push(`\n<script type="application/ld+json">${inHtml({ '@context': 'https://schema.org', '@graph': linkedData(meta) })}</script>`)
  }
  return tags.join('')
}
