import { opensInBrowser } from './mediaType'
import { escapeHtml } from '../page/escape'

/** What a list of links is written as. */
export const LINK_FORMATS = ['plain', 'html', 'markdown', 'csv'] as const
export type LinkFormat = (typeof LINK_FORMATS)[number]

interface Linked {
  title: string
  handle: string
  mediaType: string
  fileName: string
  size: number
}

/** A field of CSV (RFC 4180, section 2); what a spreadsheet would take for a formula is kept a text. */
function csvField(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
}

const markdownText = (text: string) => text.replace(/[\\[\]*_`<>]/g, '\\$&')

/**
 * Links to files, in their order.
 *
 * @param site scheme and host in front of each address
 */
export function writeLinks(format: LinkFormat, files: Linked[], site: string): string {
  const addressOf = ({ handle, mediaType }: Linked) => `${site}/files/${handle}?${opensInBrowser(mediaType) ? 'open' : 'save'}`
  switch (format) {
    case 'plain':
      return files.map(addressOf).join('\n')
    case 'html':
      return `<ul>\n${files.map(file => `  <li><a href="${escapeHtml(addressOf(file))}">${escapeHtml(file.title)}</a></li>`).join('\n')}\n</ul>`
    case 'markdown':
      return files.map(file => `- [${markdownText(file.title)}](${addressOf(file)})`).join('\n')
    case 'csv':
      return [
        'title,address,file name,bytes',
        ...files.map(file => [file.title, addressOf(file), file.fileName, String(file.size)].map(csvField).join(',')),
      ].join('\r\n')
  }
}
