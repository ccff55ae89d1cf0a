import type { Contents, Sheet } from '../files/fileContents'
import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'

const regionHtml = (name: string, table: string) =>
  `<section class="tr-table" tabindex="0" aria-label="${escapeHtml(name)}"><table>\n${table}\n</table></section>`

const cellsHtml = (cells: string[], columns: number, tag: 'td' | 'th') =>
  Array.from({ length: columns }, (_, index) => {
    const cell = escapeHtml(cells[index] ?? '')
    return tag === 'th' && cell ? `<th scope="col">${cell}</th>` : `<td>${cell}</td>`
  }).join('')

/** A sheet; its first row names the columns (common practice). */
function sheetHtml({ rows: [first = [], ...rest], cut }: Sheet, name: string, speech: Speech): string {
  const columns = Math.max(first.length, ...rest.map(row => row.length))
  const body = rest.map(row => `<tr>${cellsHtml(row, columns, 'td')}</tr>`).join('\n')
  const table = `<thead><tr>${cellsHtml(first, columns, 'th')}</tr></thead>\n<tbody>${body}</tbody>`
  return regionHtml(name, table) + (cut ? `\n<p class="tr-said">${escapeHtml(speech.say('goesOn'))}</p>` : '')
}

function entriesHtml({ entries, cut }: Extract<Contents, { kind: 'entries' }>, name: string, speech: Speech): string {
  const rows = entries.map(({ name: path, size, locked }) => {
    const note = locked ? ` <span class="tr-said">${escapeHtml(speech.say('locked'))}</span>` : ''
    return `<tr><td>${escapeHtml(path || name)}${note}</td><td>${size === undefined ? '' : escapeHtml(speech.size(size))}</td></tr>`
  })
  const head = `<tr><th scope="col">${escapeHtml(speech.say('name'))}</th><th scope="col">${escapeHtml(speech.say('size'))}</th></tr>`
  const table = `<thead>${head}</thead>\n<tbody>${rows.join('\n')}</tbody>`
  return regionHtml(name, table) + (cut ? `\n<p class="tr-said">${escapeHtml(speech.say('goesOn'))}</p>` : '')
}

/**
 * What is in a file, as HTML.
 *
 * @param contents its HTML is taken as it is: it has to be clean
 * @param name of the file, for those who hear it
 * @param sheet counted from 1
 */
export function contentsHtml(contents: Contents, name: string, sheet: number, speech: Speech): string {
  switch (contents.kind) {
    case 'text':
      return `<pre class="tr-written" tabindex="0">${escapeHtml(contents.text)}</pre>${contents.cut ? `\n<p class="tr-said">${escapeHtml(speech.say('goesOn'))}</p>` : ''}`
    case 'document':
      return `<article class="tr-written">\n${contents.html}\n</article>`
    case 'parts': {
      const parts = contents.parts.map(
        ({ name: part, text }) => `${part && `<h2>${escapeHtml(part)}</h2>\n`}<div class="tr-written tr-plain">${escapeHtml(text)}</div>`,
      )
      return parts.join('\n') + (contents.cut ? `\n<p class="tr-said">${escapeHtml(speech.say('goesOn'))}</p>` : '')
    }
    case 'sheets': {
      const shown = contents.sheets[sheet - 1]
      return shown?.rows.length ? sheetHtml(shown, shown.name || name, speech) : `<p>${escapeHtml(speech.say('emptySheet'))}</p>`
    }
    case 'entries':
      return entriesHtml(contents, name, speech)
  }
}
