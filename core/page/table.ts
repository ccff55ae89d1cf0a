import { escapeHtml } from './escape'
import type { Inline, TableBlock } from './schema'
import { inlinesOf, textOf } from './blocks'

type Row = TableBlock['content'][number]
type Cell = Row['content'][number]

const isHeading = (row: Row) => row.content.length > 0 && row.content.every(cell => cell.type === 'tableHeader')

const textIn = (cell: Cell) => textOf(cell.content.flatMap(paragraph => inlinesOf(paragraph))).trim()

/**
 * A table. Cells that name others say whether they name a column or a row (WCAG 2.2, 1.3.1; technique H63). Where it is
 * wider than the screen it is moved sideways by itself, also by key.
 */
export function tableHtml(table: TableBlock, render: (inlines: Inline[] | undefined) => string): string {
  const rows = table.content.filter(row => row.content.length)
  if (!rows.length) return ''
  const body = rows.findIndex(row => !isHeading(row))
  const heads = body < 0 ? 0 : body

  const cellHtml = (cell: Cell, scope: 'col' | 'row') => {
    const tag = cell.type === 'tableHeader' ? 'th' : 'td'
    const { colspan = 1, rowspan = 1 } = cell.attrs ?? {}
    const spans = (colspan > 1 ? ` colspan="${colspan}"` : '') + (rowspan > 1 ? ` rowspan="${rowspan}"` : '')
    const inner = cell.content.map(paragraph => render(paragraph.content)).join('<br>')
    // A cell that names nothing would only be read out as a blank heading.
    return tag === 'th' && inner ? `<th scope="${scope}"${spans}>${inner}</th>` : `<td${spans}>${inner}</td>`
  }
  const rowsHtml = (some: Row[], scope: 'col' | 'row') =>
    some.map(row => `<tr>${row.content.map(cell => cellHtml(cell, scope)).join('')}</tr>`).join('\n')

  const named = rows[0]!.content.map(textIn).filter(Boolean).join(', ')
  const head = heads ? `<thead>${rowsHtml(rows.slice(0, heads), 'col')}</thead>\n` : ''
  return `<section class="tr-table" tabindex="0" aria-label="${escapeHtml(named ? `Table: ${named}` : 'Table')}"><table>\n${head}<tbody>${rowsHtml(rows.slice(heads), 'row')}</tbody>\n</table></section>`
}
