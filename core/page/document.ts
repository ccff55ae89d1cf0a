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

function frame(site: SiteFacts, slug: string | undefined, title: string, main: string): string {
  const items = site.menu.map(item =>
    `<li><a href="${pageHref(item.slug)}"${item.slug === slug ? ' aria-current="page"' : ''}>${escapeHtml(item.title)}</a></li>`).join('')
  const name = escapeHtml(site.name)
  return `<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}${title === site.name ? '' : ` · ${name}`}</title>
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
export function renderPage(site: SiteFacts, page: { slug: string, title: string, document: PageDocument }, known: PageFacts): string {
  return frame(site, page.slug, page.title, `<h1>${escapeHtml(page.title)}</h1>\n${renderBlocks(page.document, known)}`)
}

/** A page that says something to a visitor who asked for what is not there. */
export function renderMessage(site: SiteFacts, title: string, message: string): string {
  // Without a live page there is nowhere to go on to.
  const onward = site.menu.length ? `\n<p><a class="tr-link" href="${pageHref(site.menu[0]!.slug)}">Go to the first page</a></p>` : ''
  return frame(site, undefined, title, `<h1>${escapeHtml(title)}</h1>\n<p>${escapeHtml(message)}</p>${onward}`)
}
