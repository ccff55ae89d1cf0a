import { FRAME_CSS, neighboursHtml, wayHtml, type EntryFrame } from '../catalogue/entryFrame'
import { cut } from '../cut'
import type { Speech } from '../language/speech'
import { LEAFING_CSS } from '../search/searchCss'
import type { SiteStyle } from '../look/siteStyle'
import { firstHref } from '../look/fontFaces'
import { fontsOf } from '../look/typefaces'
import { ON_PAPER, pageCss } from './pageCss'
import { blocksOfEdge, menuTitle, splitHead, type EdgeDocuments } from './edges'
import { escapeHtml } from './escape'
import { pageHref } from './href'
import { metaHtml, type PageMeta } from './meta'
import { pageRenderer, type PageFacts, type PageRenderer } from './html'
import type { TargetFacts } from './placeholders'
import type { Block, PageDocument } from './schema'
import { fileIds, idOf, referencesIn } from './targets'
import { everyBlock, inlinesOf, partsOf, textOf, type PartName } from './blocks'

export interface SiteFacts {
  name: string
  /** scheme and host of the public site; empty until known */
  address: string
  /** live pages in menu order */
  menu: { id: string; slug: string; title: string }[]
  style: SiteStyle
  edges: EdgeDocuments
  /** HTML of a picture that phones read an address from; where printed pages end with one */
  codeOf?: (address: string) => string
}

type Head = Omit<PageMeta, 'site' | 'address'>

/** More do not fit beside a name on a phone; there they show when they are asked for. */
const MOST_UNFOLDED = 3

/** More would be higher than a picture reaches up. */
const MOST_OVER = 24

/** A list that is folded away on a phone is a popover: it opens, and goes by Escape or a touch beside it, without script (HTML). */
function menuHtml(links: string[], speech: Speech): string {
  if (!links.length) return ''
  const folds = links.length > MOST_UNFOLDED
  const key = folds ? `<button class="tr-key" type="button" popovertarget="tr-menu">${escapeHtml(speech.say('menu'))}</button>` : ''
  const list = `<ul class="tr-menu"${folds ? ' id="tr-menu" popover' : ''}>${links.map(link => `<li>${link}</li>`).join('')}</ul>`
  return `<nav aria-label="${escapeHtml(speech.say('pages'))}">${key}${list}</nav>`
}

/** The site's name or mark with its menu: what the owner placed in the head, then the pages that are listed by themselves. */
function headHtml(
  site: SiteFacts,
  { slug, document }: { slug?: string; document?: PageDocument },
  renderer: PageRenderer,
  speech: Speech,
): string {
  const { mark, items, below } = splitHead(site.edges.head)
  const placed = new Set(items.map(({ target }) => idOf(target)))
  const listed = site.menu
    .filter(({ id }) => !placed.has(id))
    .map(
      item =>
        `<a class="tr-listed" href="${pageHref(item.slug)}"${item.slug === slug ? ' aria-current="page"' : ''}>${escapeHtml(menuTitle(item, speech))}</a>`,
    )
  const links = [...items.map(item => renderer.menuItem(item, slug)).filter(Boolean), ...listed]
  const name = (mark && renderer.mark(mark, site.name)) || `<a class="tr-site" href="/">${escapeHtml(site.name)}</a>`
  // Over a picture it has the colours of the words there.
  const opening = site.style.head === 'over' && links.length <= MOST_OVER && document ? renderer.opening(document.content) : undefined
  return `<header class="tr-page${opening ? ` tr-over tr-tone-${opening.attrs.tone}` : ''}"><div class="tr-head">${name}${menuHtml(links, speech)}</div>${withLineBefore(renderer.blocks(below))}</header>`
}

const withLineBefore = (html: string) => html && `\n${html}\n`

function frame(
  site: SiteFacts,
  meta: Head,
  main: {
    html: string
    document?: PageDocument
    /** what it is made of beside that, and rules of its own */ parts?: PartName[]
    css?: string
  },
  known: PageFacts,
  renderer = pageRenderer(known),
): string {
  const { slug, title } = meta
  const name = escapeHtml(site.name)
  const head = headHtml(site, { slug, document: main.document }, renderer, known.speech)
  const foot = renderer.blocks(blocksOfEdge(site.edges.foot))
  const documented = partsOf({ content: [main.document, site.edges.head, site.edges.foot].flatMap(document => document?.content ?? []) })
  const parts = new Set([...documented, ...renderer.parts, ...(main.parts ?? [])])
  const code = (site.address && slug !== undefined && site.codeOf?.(new URL(pageHref(slug), site.address).href)) || ''
  const fonts = fontsOf(site.style)
    .map(font => `\n<link rel="preload" href="${firstHref(font)}" as="font" type="font/woff2" crossorigin>`)
    .join('')
  return `<!DOCTYPE html>
<html lang="${known.speech.language}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}${title === site.name ? '' : ` · ${name}`}</title>${metaHtml({ ...meta, site: site.name, address: site.address })}
<link rel="icon" href="/favicon.ico">${fonts}
<style>
${pageCss(site.style, parts, site.address)}${main.css ?? ''}
${renderer.css}
</style>
</head>
<body>
${head}
<main class="tr-page">
${main.html}
</main>
<footer class="tr-page">${withLineBefore(foot)}<p class="tr-foot">${name}</p>${code}</footer>
</body>
</html>
`
}

/** About what search engines show of a description. */
const LONGEST = 160

/** The first words of a page, whole, as its description where its owner gave none. */
function firstWords(document: PageDocument): string {
  for (const block of everyBlock(document)) {
    const text = block.type === 'paragraph' ? textOf(inlinesOf(block)).trim() : ''
    if (text) return text.length > LONGEST ? `${cut(text, LONGEST).replace(/\s+\S*$/, '')}…` : text
  }
  return ''
}

/**
 * The first picture of a page is mostly in view from the start, and should neither wait until the page is laid out (HTML, lazy loading
 * attributes) nor behind what is seen later (fetch priority attributes). In words the attribute cannot stand: their quotes are escaped.
 */
const firstAtOnce = (html: string) => html.replace(' loading="lazy"', ' fetchpriority="high"')

/**
 * Links within the site say their address without what only the site needs in it, for paper. In words the attribute cannot stand: their
 * quotes are escaped.
 */
const withPaperAddresses = (html: string) => html.replace(/(<a\b[^>]*?) href="(\/[^"?#]*)/g, `$1 ${ON_PAPER}="$2" href="$2`)

/** A published page: complete HTML with its CSS, no script. */
export function renderPage(
  site: SiteFacts,
  page: {
    slug: string
    title: string
    description: string
    /** shown with links to it elsewhere */ picture?: TargetFacts
    document: PageDocument
    /** where it is the page of an entry: what stands around that, and what it is for programs */
    entry?: { frame: EntryFrame; about: object | undefined }
    /** what can be followed from it */
    feeds?: { title: string; href: string }[]
  },
  known: PageFacts,
): string {
  const { document, entry } = page
  const renderer = pageRenderer(known)
  const main = firstAtOnce(renderer.main(page.title, document.content))
  const html = entry ? wayHtml(entry.frame, known.speech) + main + neighboursHtml(entry.frame, known.speech) : main
  // What stands behind a gate is no search engine's business.
  const files = fileIds(referencesIn(document))
    .flatMap(id => known.file(id) ?? [])
    .filter(({ asks }) => !asks)
  return frame(
    site,
    { ...page, description: page.description || firstWords(document), files, about: entry?.about, list: entry?.frame.list },
    {
      html: site.style.paper.addresses === 'all' ? withPaperAddresses(html) : html,
      document,
      ...(entry && { parts: ['downloadLink' as const], css: LEAFING_CSS + FRAME_CSS }),
    },
    known,
    renderer,
  )
}

/** Blocks of a page by themselves, drawn as they are there, without what stands around every page. */
export function renderBlocks({ style, address }: Pick<SiteFacts, 'style' | 'address'>, blocks: Block[], known: PageFacts): string {
  const renderer = pageRenderer(known)
  const html = renderer.blocks(blocks)
  const parts = new Set([...partsOf({ content: blocks }), ...renderer.parts])
  return `<!DOCTYPE html>
<html lang="${known.speech.language}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title></title>
<style>
${pageCss(style, parts, address)}
${renderer.css}
</style>
</head>
<body>
<main class="tr-page">
${html}
</main>
</body>
</html>
`
}

/** What stands in the frame of the site without being a page of its owner's. */
export interface MadePage {
  /** its address, without the slash it begins with; left out where none leads to it alone */
  slug?: string
  title: string
  description: string
  /** shown with links to it elsewhere */
  picture?: TargetFacts
  /** files that visitors get there */
  files: TargetFacts[]
  /** what it is made of, for its rules, and rules of its own */
  parts: PartName[]
  css: string
  write: (renderer: PageRenderer, speech: Speech) => string
}

/** A page that Trough itself makes, between head and foot of the site. */
export function renderMade(site: SiteFacts, { parts, css, write, ...meta }: MadePage, known: PageFacts): string {
  const renderer = pageRenderer(known)
  // It has no picture of its own drawn for it: there are as many such pages as anybody asks for.
  return frame(site, { ...meta, sharedSlug: '' }, { html: write(renderer, known.speech), parts, css }, known, renderer)
}

/** A page that says something to a visitor who asked for what is not there. */
export function renderMessage(site: SiteFacts, title: string, message: string, known: PageFacts): string {
  // Without a live page there is nowhere to go on to.
  const onward = site.menu.length
    ? `\n<p><a class="tr-link" href="${pageHref(site.menu[0]!.slug)}">${escapeHtml(known.speech.say('toFirstPage'))}</a></p>`
    : ''
  return frame(
    site,
    { title },
    { html: `<h1>${escapeHtml(title)}</h1>\n<p>${escapeHtml(message)}</p>${onward}`, parts: ['downloadLink'] },
    known,
  )
}
