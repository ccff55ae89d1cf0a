import papa from 'papaparse'

const APART = '\t'

/** Cells as spreadsheets copy them: tabs between, quotes around what holds a tab, a line's end or a quote (common practice). */
export const writeCells = (rows: string[][]): string => papa.unparse(rows, { delimiter: APART, newline: '\n' })

/** Rows of cells that were copied, from a spreadsheet or from here. */
export const readCells = (text: string): string[][] => papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: APART }).data
