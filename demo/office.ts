import { Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow, WidthType, type FileChild } from 'docx'
import writeXlsxFile from 'write-excel-file/node'

/** A document under its title. */
function makeDocument(title: string, ...children: FileChild[]): Promise<Buffer> {
  const heading = new Paragraph({ text: title, heading: HeadingLevel.HEADING_1 })
  return Packer.toBuffer(new Document({ creator: 'Marlpit Pottery Supply', title, sections: [{ children: [heading, ...children] }] }))
}

/** A form to fill in by hand: a line for each question. */
export function makeForm(title: string, intro: string, questions: string[]): Promise<Buffer> {
  const cell = (text: string) => new TableCell({ children: [new Paragraph(text)], margins: { top: 120, bottom: 120, left: 80, right: 80 } })
  const table = new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: questions.map(question => new TableRow({ children: [cell(question), cell('')] })),
  })
  return makeDocument(title, new Paragraph({ text: intro, spacing: { after: 240 } }), table)
}

/** A list to tick off. */
export const makeList = (title: string, items: string[]): Promise<Buffer> =>
  makeDocument(title, ...items.map(text => new Paragraph({ text, bullet: { level: 0 } })))

/** A sheet with a heading row. */
export async function makeSheet(rows: (string | number)[][]): Promise<Buffer> {
  const [head = [], ...body] = rows
  const data = [
    head.map(value => ({ value: String(value), fontWeight: 'bold' as const })),
    ...body.map(row => row.map(value => typeof value === 'number' ? { value, type: Number } : { value, type: String })),
  ]
  return writeXlsxFile(data as never).toBuffer()
}
