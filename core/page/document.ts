import { pageCss, FONT_FILES } from './css'
import { escapeHtml } from './escape'
import { renderBlocks, type PageFacts } from './html'
import type { PageDocument } from './schema'

export interface SiteFacts {
  name: string
  /** live pages in menu order */
  menu: { slug: string, title: string }[]
}

/** The root-relative address of a page. */
export const pageHref = (slug: string) => `/${slug}`

/** For search engines, and for the previews that other programs make of a link (the Open Graph protocol). */
function headWords(title: string, description: string): string {
  const named = description && `\n<meta name="description" content="${escapeHtml(description)}">\n<meta property="og:description" content="${escapeHtml(description)}">`
  return `${named}\n<meta property="og:title" content="${escapeHtml(title)}">`
}

function frame(site: SiteFacts, { slug, title, description = '' }: { slug?: string, title: string, description?: string }, main: string): string {
  const items = site.menu.map(item =>
    `<li><a href="${pageHref(item.slug)}"${item.slug === slug ? ' aria-current="page"' : ''}>${escapeHtml(item.title)}</a></li>`).join('')
  const name = escapeHtml(site.name)
  return `<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}${title === site.name ? '' : ` · ${name}`}</title>${headWords(title, description)}
<link rel="icon" href="data:,">
<link rel="preload" href="${FONT_FILES.heading}" as="font" type="font/woff2" crossorigin>
<link rel="preload" href="${FONT_FILES.text}" as="font" type="font/woff2" crossorigin>
<style>
${pageCss()}
</style>
</head>
<body>
<header class="tr-head"><a class="tr-site" href="/">${name}</a>${items && `<nav aria-label="Pages"><ul class="tr-menu">${items}</ul></nav>`}</header>
<main class="tr-page">
${main}
</main>
<footer class="tr-foot">${name}</footer>
</body>
</html>
`
}

/** A published page: complete HTML with its CSS, no script. */
export function renderPage(site: SiteFacts, page: { slug: string, title: string, description: string, document: PageDocument }, known: PageFacts): string {
  return frame(site, page, `<h1>${escapeHtml(page.title)}</h1>\n${renderBlocks(page.document, known)}`)
}

/** A page that says something to a visitor who asked for what is not there. */
export function renderMessage(site: SiteFacts, title: string, message: string): string {
  // Without a live page there is nowhere to go on to.
  const onward = site.menu.length ? `\n<p><a class="tr-link" href="${pageHref(site.menu[0]!.slug)}">Go to the first page</a></p>` : ''
  return frame(site, { title }, `<h1>${escapeHtml(title)}</h1>\n<p>${escapeHtml(message)}</p>${onward}`)
}
