import { escapeHtml } from '../page/escape'

/** What a message says, before it has a form. */
export interface Letter {
  /** one sentence or two above the link; each line a paragraph of its own */
  words: string
  link: { href: string; words: string }
  /** what stands below it */
  after?: string
  /** the site it comes from */
  site: string
  /** how no more messages come; left out where the receiver asked for this very one */
  noMore?: { href: string; words: string }
}

/** Colours of the message: some mail programs strip style sheets, so that each element has its own. */
const INK = '#17211F'
const SOFT = '#5A6663'
const WATER = '#0E6A68'

/** Text and HTML of a message, saying the same: some read the one and some the other (RFC 2046, section 5.1.4). */
export function composeLetter({ words, link, after, site, noMore }: Letter): { text: string; html: string } {
  const text = [words, link.href, after, `-- \n${site}`, noMore && `${noMore.words}: ${noMore.href}`].filter(Boolean).join('\n\n')
  const p = (inner: string, colour = INK) =>
    `<p style="margin:0 0 16px;color:${colour};font:16px/1.5 Georgia,serif;overflow-wrap:anywhere">${inner}</p>`
  const a = (href: string, inner: string, style: string) => `<a href="${escapeHtml(href)}" style="${style}">${escapeHtml(inner)}</a>`
  const html = `<!DOCTYPE html>
<html><head><meta charset="utf-8"><title>${escapeHtml(site)}</title></head>
<body style="margin:0;padding:24px;background:#FFFFFF">
<div style="max-width:520px;margin:0 auto">
${words
  .split('\n')
  .map(line => p(escapeHtml(line)))
  .join('\n')}
${p(a(link.href, link.words, `display:inline-block;padding:11px 20px;background:${WATER};color:#FFFFFF;text-decoration:none;font-weight:bold`))}
${p(a(link.href, link.href, `color:${WATER};word-break:break-all`))}
${after ? p(escapeHtml(after)) : ''}
${p(escapeHtml(site) + (noMore ? `<br>${a(noMore.href, noMore.words, `color:${SOFT}`)}` : ''), SOFT)}
</div>
</body></html>
`
  return { text, html }
}
