import { Table, TableCell, TableHeader, TableRow } from '@tiptap/extension-table'
import { MOST_COLUMNS, MOST_ROWS } from '~~/core/page/schema'

const span = (name: 'colspan' | 'rowspan', most: number) => ({
  default: 1,
  parseHTML: (element: HTMLElement) => Math.min(most, Math.max(1, Number.parseInt(element.getAttribute(name) ?? '1') || 1)),
})
const attributes = () => ({
  colspan: span('colspan', MOST_COLUMNS),
  rowspan: span('rowspan', MOST_ROWS),
  /** known to the table's commands only: columns are as wide as what is in them */ colwidth: { default: null, rendered: false },
})

/** Tables of words; buttons and pictures stand beside them. */
export const tableExtensions = [
  Table.configure({ resizable: false }),
  TableRow.extend({ content: '(tableCell | tableHeader)*' }),
  TableCell.extend({ content: 'paragraph+', addAttributes: attributes }),
  TableHeader.extend({ content: 'paragraph+', addAttributes: attributes }),
]

/** What can be done with the row and the column the caret is in. */
export const TABLE_ACTS = [
  ['addRowBefore', 'Row above'],
  ['addRowAfter', 'Row below'],
  ['addColumnBefore', 'Column before'],
  ['addColumnAfter', 'Column after'],
  ['deleteRow', 'Take row away'],
  ['deleteColumn', 'Take column away'],
] as const
export const TABLE_HEADINGS = [
  ['toggleHeaderRow', 'First row names the columns'],
  ['toggleHeaderColumn', 'First column names the rows'],
] as const
export type TableAct = (typeof TABLE_ACTS)[number][0] | (typeof TABLE_HEADINGS)[number][0]
