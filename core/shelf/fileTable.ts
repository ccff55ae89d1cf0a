import type { WordKey } from '../language/words/words'
import { escapeHtml } from '../page/escape'
import type { TargetFacts } from '../page/placeholders'
import { cellOf, linkHtml, partHtml, tickHtml, type Writing } from './item'
import type { ShelfFact, ShelfPart } from './shown'

/** What a column is called. */
const HEADINGS: Record<ShelfFact | Exclude<ShelfPart, 'new' | 'facts'>, WordKey> = {
  picture: 'preview',
  icon: 'preview',
  title: 'name',
  type: 'kind',
  size: 'size',
  date: 'changedWhen',
  edition: 'editionColumn',
  pages: 'pagesColumn',
  downloads: 'downloadsColumn',
  tags: 'tagsColumn',
  description: 'aboutColumn',
  look: 'lookInside',
  button: 'download',
}
type Column = keyof typeof HEADINGS
/** Headings that those who see need not read: what stands below says it. */
const UNSEEN: readonly Column[] = ['picture', 'icon', 'look', 'button']
const UNBROKEN: readonly Column[] = ['date', 'look', 'type']
const NUMBERS: readonly Column[] = ['size', 'edition', 'pages', 'downloads']

function columnsOf({ shown: { parts, facts } }: Writing): Column[] {
  const chosen = parts.includes('title') ? parts : (['title', ...parts] as const)
  // Facts have a column each, the mark of what is new stands at the title.
  return chosen.flatMap((part): readonly Column[] => (part === 'facts' ? facts : part === 'new' ? [] : [part]))
}

function cellHtml(column: Column, file: TargetFacts, writing: Writing): string {
  switch (column) {
    case 'title':
      return linkHtml(file, writing, writing.shown.parts.includes('new') ? partHtml('new', file, writing) : '')
    case 'picture':
    case 'icon':
    case 'look':
    case 'button':
      return partHtml(column, file, writing)
    case 'description':
      return escapeHtml(file.description)
    default:
      return escapeHtml(cellOf(column, file, writing.speech))
  }
}

/**
 * Files as rows of a table, each named by its title (WCAG 2.2, 1.3.1; technique H63). Wider than the screen, it moves sideways by itself.
 */
export function fileTableHtml(files: TargetFacts[], writing: Writing): string {
  const { speech, pick } = writing
  const columns = columnsOf(writing)
  const say = (key: WordKey) => escapeHtml(speech.say(key))
  const aside = (column: Column) => (NUMBERS.includes(column) ? ' class="tr-number"' : UNBROKEN.includes(column) ? ' class="tr-when"' : '')
  const head = columns.map(column => {
    const words = say(HEADINGS[column])
    return `<th scope="col"${aside(column)}>${UNSEEN.includes(column) ? `<span class="tr-spoken">${words}</span>` : words}</th>`
  })
  const rows = files.map(file => {
    const cells = columns.map(column => {
      const inner = cellHtml(column, file, writing)
      return column === 'title' ? `<th scope="row">${inner}</th>` : `<td${aside(column)}>${inner}</td>`
    })
    return `<tr>${pick ? `<td class="tr-pick">${tickHtml(file, speech)}</td>` : ''}${cells.join('')}</tr>`
  })
  const ticks = pick ? `<th scope="col" class="tr-pick"><span class="tr-spoken">${say('chooseColumn')}</span></th>` : ''
  return `<section class="tr-table tr-files" tabindex="0" aria-label="${say('filesTable')}"><table>
<thead><tr>${ticks}${head.join('')}</tr></thead>
<tbody>${rows.join('\n')}</tbody>
</table></section>`
}
