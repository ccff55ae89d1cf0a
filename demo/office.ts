import { Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow, TextRun, WidthType } from 'docx'
import writeXlsxFile from 'write-excel-file/node'

/** A form to fill in by hand: a line for each question. */
export async function makeForm(title: string, intro: string, questions: string[]): Promise<Buffer> {
  const cell = (text: string) => new TableCell({ children: [new Paragraph(text)], margins: { top: 120, bottom: 120, left: 80, right: 80 } })
  const document = new Document({
    creator: 'Marlpit Pottery Supply',
    title,
    sections: [{
      children: [
        new Paragraph({ text: title, heading: HeadingLevel.HEADING_1 }),
        new Paragraph({ children: [new TextRun(intro)], spacing: { after: 240 } }),
        new Table({
          width: { size: 100, type: WidthType.PERCENTAGE },
          rows: questions.map(question => new TableRow({ children: [cell(question), cell('')] })),
        }),
      ],
    }],
  })
  return Packer.toBuffer(document)
}

/** A list to tick off. */
export async function makeList(title: string, items: string[]): Promise<Buffer> {
  const document = new Document({
    creator: 'Marlpit Pottery Supply',
    title,
    sections: [{
      children: [
        new Paragraph({ text: title, heading: HeadingLevel.HEADING_1 }),
        ...items.map(text => new Paragraph({ text, bullet: { level: 0 } })),
      ],
    }],
  })
  return Packer.toBuffer(document)
}

/** A sheet with a heading row. */
export async function makeSheet(rows: (string | number)[][]): Promise<Buffer> {
  const [head = [], ...body] = rows
  const data = [
    head.map(value => ({ value: String(value), fontWeight: 'bold' as const })),
    ...body.map(row => row.map(value => typeof value === 'number' ? { value, type: Number } : { value, type: String })),
  ]
  return writeXlsxFile(data as never).toBuffer()
}
