import { Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow, WidthType, type FileChild } from 'docx'
import { strToU8, zipSync } from 'fflate'
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
    ...body.map(row => row.map(value => (typeof value === 'number' ? { value, type: Number } : { value, type: String }))),
  ]
  return writeXlsxFile(data as never).toBuffer()
}

const escape = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;')

/** A presentation of plain slides, as small as PresentationML allows (ECMA-376 part 1, 13). */
export function makeSlides(slides: string[]): Buffer {
  const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'
  const packaged = 'http://schemas.openxmlformats.org/package/2006'
  const names =
    'xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"'
  const part = (text: string) => strToU8(`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n${text}`)
  const type = 'application/vnd.openxmlformats-officedocument.presentationml'
  const files = Object.fromEntries(
    slides.map((words, index) => [
      `ppt/slides/slide${index + 1}.xml`,
      part(
        `<p:sld ${names}><p:cSld><p:spTree><p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr/><p:sp><p:nvSpPr><p:cNvPr id="2" name="Words"/><p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr/><p:txBody><a:bodyPr/><a:p><a:r><a:t>${escape(words)}</a:t></a:r></a:p></p:txBody></p:sp></p:spTree></p:cSld></p:sld>`,
      ),
    ]),
  )
  return Buffer.from(
    zipSync(
      {
        '[Content_Types].xml': part(
          `<Types xmlns="${packaged}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/ppt/presentation.xml" ContentType="${type}.presentation.main+xml"/>${slides.map((_, index) => `<Override PartName="/ppt/slides/slide${index + 1}.xml" ContentType="${type}.slide+xml"/>`).join('')}</Types>`,
        ),
        '_rels/.rels': part(
          `<Relationships xmlns="${packaged}/relationships"><Relationship Id="rId1" Type="${office}/officeDocument" Target="ppt/presentation.xml"/></Relationships>`,
        ),
        'ppt/presentation.xml': part(
          `<p:presentation ${names}><p:sldIdLst>${slides.map((_, index) => `<p:sldId id="${256 + index}" r:id="rId${index + 1}"/>`).join('')}</p:sldIdLst></p:presentation>`,
        ),
        'ppt/_rels/presentation.xml.rels': part(
          `<Relationships xmlns="${packaged}/relationships">${slides.map((_, index) => `<Relationship Id="rId${index + 1}" Type="${office}/slide" Target="slides/slide${index + 1}.xml"/>`).join('')}</Relationships>`,
        ),
        ...files,
      },
      { mtime: new Date('2026-09-07T09:00:00Z') },
    ),
  )
}
