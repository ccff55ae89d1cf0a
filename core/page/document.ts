import type { SiteStyle } from '../look/siteStyle'
import { fontsOf } from '../look/typefaces'
import { pageCss } from './css'
import { escapeHtml } from './escape'
import { pageHref, pictureHref } from './href'
import { renderBlocks, type PageFacts } from './html'
import type { TargetFacts } from './placeholders'
import type { PageDocument } from './schema'
import { everyBlock, inlinesOf, partsOf, type PartName } from './tree'

export interface SiteFacts {
  name: string
  /** scheme and host of the public site; empty until known */
  address: string
  /** live pages in menu order; the first page is called Home there, however it is titled */
  menu: { slug: string, title: string }[]
  style: SiteStyle
}

interface Head { /** left out where the page has no address of its own */ slug?: string, title: string, description?: string, picture?: TargetFacts }

/** Pixels across of the picture that goes with a link: previews are drawn some 600 wide, on screens of up to twice as many pixels. */
const SHARED_WIDTH = 1440

/** For search engines, and for the previews that other programs make of a link (the Open Graph protocol). */
function headWords({ address }: SiteFacts, { slug, title, description = '', picture }: Head): string {
  const named: [attribute: 'name' | 'property', of: string, content: string][] = [['property', 'og:title', title]]
  if (description) named.unshift(['name', 'description', description], ['property', 'og:description', description])
  // Whoever shows the link stands on another host: these have to be whole addresses.
  if (address && slug !== undefined) named.push(['property', 'og:url', address + pageHref(slug)])
  if (address && picture?.picture) named.push(['property', 'og:image', address + pictureHref(picture, SHARED_WIDTH)], ['property', 'og:image:alt', picture.description || picture.title])
  return named.map(([attribute, of, content]) => `\n<meta ${attribute}="${of}" content="${escapeHtml(content)}">`).join('')
}

function frame(site: SiteFacts, { slug, title, description = '', picture }: Head, main: { html: string, css: string, parts: ReadonlySet<PartName> }): string {
  const items = site.menu.map(item =>
    `<li><a href="${pageHref(item.slug)}"${item.slug === slug ? ' aria-current="page"' : ''}>${escapeHtml(item.slug === '' ? 'Home' : item.title)}</a></li>`).join('')
  const name = escapeHtml(site.name)
  const fonts = fontsOf(site.style.type).map(({ url }) => `\n<link rel="preload" href="${url}" as="font" type="font/woff2" crossorigin>`).join('')
  return `<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}${title === site.name ? '' : ` · ${name}`}</title>${headWords(site, { slug, title, description, picture })}
<link rel="icon" href="data:,">${fonts}
<style>
${pageCss(site.style, main.parts)}
${main.css}
</style>
</head>
<body>
<header class="tr-head"><a class="tr-site" href="/">${name}</a>${items && `<nav aria-label="Pages"><ul class="tr-menu">${items}</ul></nav>`}</header>
<main class="tr-page">
${main.html}
</main>
<footer class="tr-foot">${name}</footer>
</body>
</html>
`
}

/** About what search engines show of a description. */
const LONGEST = 160

/** The first words of a page, whole, as its description where its owner gave none. */
function firstWords(document: PageDocument): string {
  for (const block of everyBlock(document)) {
    const text = block.type === 'paragraph' ? inlinesOf(block).map(inline => inline.type === 'text' ? inline.text : ' ').join('').trim() : ''
    if (text) return text.length > LONGEST ? `${text.slice(0, LONGEST).replace(/\s+\S*$/, '')}…` : text
  }
  return ''
}

/** A published page: complete HTML with its CSS, no script. */
export function renderPage(site: SiteFacts, page: { slug: string, title: string, description: string, /** shown with links to it elsewhere */ picture?: TargetFacts, document: PageDocument }, known: PageFacts): string {
  const { html, css } = renderBlocks(page.document, known)
  return frame(site, { ...page, description: page.description || firstWords(page.document) }, { html: `<h1>${escapeHtml(page.title)}</h1>\n${html}`, css, parts: partsOf(page.document) })
}

/** A page that says something to a visitor who asked for what is not there. */
export function renderMessage(site: SiteFacts, title: string, message: string): string {
  // Without a live page there is nowhere to go on to.
  const onward = site.menu.length ? `\n<p><a class="tr-link" href="${pageHref(site.menu[0]!.slug)}">Go to the first page</a></p>` : ''
  return frame(site, { title }, { html: `<h1>${escapeHtml(title)}</h1>\n<p>${escapeHtml(message)}</p>${onward}`, css: '', parts: new Set(onward ? ['downloadLink'] : []) })
}
