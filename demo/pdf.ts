import PDFDocument from 'pdfkit'

export interface PdfSpec {
  title: string
  subtitle: string
  /** what the document is written out of, a page or so each */
  sections: {
    heading: string
    text?: string[]
    table?: string[][]
    curve?: { label: string; points: [hours: number, degrees: number][] }
  }[]
}

const INK = '#24211D'
const ACCENT = '#1F5A57'
const LINE = '#C9C2B4'
const MARGIN = 56

type Doc = InstanceType<typeof PDFDocument>

function heading(doc: Doc, text: string): void {
  if (doc.y > doc.page.height - 160) doc.addPage()
  doc.moveDown(0.8).font('Helvetica-Bold').fontSize(15).fillColor(ACCENT).text(text, MARGIN)
  doc.moveDown(0.4).font('Helvetica').fontSize(10.5).fillColor(INK)
}

function table(doc: Doc, rows: string[][]): void {
  const width = doc.page.width - 2 * MARGIN
  const first = width * 0.46
  const rest = (width - first) / (rows[0]!.length - 1)
  rows.forEach((row, index) => {
    if (doc.y > doc.page.height - 90) doc.addPage()
    const top = doc.y
    doc.font(index ? 'Helvetica' : 'Helvetica-Bold').fontSize(10)
    row.forEach((cell, column) =>
      doc.text(cell, column ? MARGIN + first + (column - 1) * rest : MARGIN, top, {
        width: column ? rest : first - 8,
        align: column ? 'right' : 'left',
        lineBreak: false,
      }),
    )
    doc
      .moveTo(MARGIN, top + 16)
      .lineTo(MARGIN + width, top + 16)
      .lineWidth(index ? 0.4 : 1)
      .strokeColor(LINE)
      .stroke()
    doc.y = top + 21
  })
  doc.x = MARGIN
}

function curve(doc: Doc, { label, points }: NonNullable<PdfSpec['sections'][number]['curve']>): void {
  if (doc.y > doc.page.height - 340) doc.addPage()
  const [left, top, width, height] = [MARGIN + 34, doc.y + 10, doc.page.width - 2 * MARGIN - 34, 250]
  const hours = Math.max(...points.map(([hour]) => hour))
  const x = (hour: number) => left + (hour / hours) * width
  const y = (degrees: number) => top + height - (degrees / 1300) * height
  doc.fontSize(8.5).fillColor(INK)
  for (let degrees = 0; degrees <= 1300; degrees += 100) {
    doc
      .moveTo(left, y(degrees))
      .lineTo(left + width, y(degrees))
      .lineWidth(0.4)
      .strokeColor(LINE)
      .stroke()
    if (degrees % 200 === 0) doc.text(`${degrees} °C`, MARGIN - 10, y(degrees) - 4, { width: 38, align: 'right' })
  }
  for (let hour = 0; hour <= hours; hour += 2) doc.text(`${hour} h`, x(hour) - 12, top + height + 5, { width: 24, align: 'center' })
  points.forEach(([hour, degrees], index) => (index ? doc.lineTo(x(hour), y(degrees)) : doc.moveTo(x(hour), y(degrees))))
  doc.lineWidth(2.2).strokeColor(ACCENT).stroke()
  doc.fontSize(10).text(label, MARGIN, top + height + 24)
}

/** A PDF of real pages; `issued` is the date it carries. */
export function makePdf(spec: PdfSpec, issued: Date): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    bufferPages: true,
    lang: 'en',
    info: { Title: spec.title, Author: 'Marlpit Pottery Supply', CreationDate: issued, ModDate: issued },
  })
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  const done = new Promise<Buffer>(resolve => doc.on('end', () => resolve(Buffer.concat(chunks))))

  doc.rect(0, 0, doc.page.width, 12).fill(ACCENT)
  doc.font('Helvetica').fontSize(10).fillColor(INK).text('Marlpit Pottery Supply', MARGIN, 44)
  doc.font('Helvetica-Bold').fontSize(26).text(spec.title, MARGIN, 84)
  doc.font('Helvetica').fontSize(12).fillColor('#5F5950').text(spec.subtitle)
  doc.moveDown(1)
  for (const section of spec.sections) {
    heading(doc, section.heading)
    for (const paragraph of section.text ?? []) doc.text(paragraph, { lineGap: 2.5 }).moveDown(0.6)
    if (section.table) table(doc, section.table)
    if (section.curve) curve(doc, section.curve)
  }
  const { count } = doc.bufferedPageRange()
  for (let page = 0; page < count; page++) {
    doc.switchToPage(page)
    doc.page.margins.bottom = 0
    doc
      .fontSize(8.5)
      .fillColor('#5F5950')
      .text(`${spec.title}, page ${page + 1} of ${count}`, MARGIN, doc.page.height - 36, { lineBreak: false })
  }
  doc.end()
  return done
}
