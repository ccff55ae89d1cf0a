import { readProperties, withPackage, type OfficePackage } from './package'
import { Pieces, readSheets } from './pieces'
import { Unreadable, type Reader } from './reader'
import { readOpenSpreadsheet, readWorkbook } from './spreadsheet'

const CORE = 'docProps/core.xml'
/** Text of a WordprocessingML or DrawingML part: paragraphs on lines of their own. */
async function readParagraphs({ xml }: OfficePackage, name: string, pieces: Pieces): Promise<void> {
  let inText = false
  await xml(name, {
    open(tag) {
      if (tag === 't') inText = true
      else if (tag === 'tab') pieces.add('\t')
      else if (tag === 'br') pieces.add('\n')
    },
    text: piece => inText && pieces.add(piece),
    close(tag) {
      if (tag === 't') inText = false
      else if (tag === 'p') pieces.add('\n')
    },
    wanted: () => !pieces.enough,
  })
}

export const readWord: Reader = (path, sink) =>
  withPackage(path, async parts => {
    if (!parts.has('word/document.xml')) throw new Unreadable('The document is damaged: its text is missing.')
    await readProperties(parts, CORE, sink)
    const pieces = new Pieces()
    const more = parts.names.filter(name => /^word\/(?:footnotes|endnotes|header\d*|footer\d*)\.xml$/.test(name))
    for (const name of ['word/document.xml', ...more]) await readParagraphs(parts, name, pieces)
    await pieces.handOver(sink, '')
  })

const numberIn = (name: string) => Number(/\d+/.exec(name)?.[0] ?? 0)

export const readSlides: Reader = (path, sink) =>
  withPackage(path, async parts => {
    await readProperties(parts, CORE, sink)
    const slides = parts.names.filter(name => /^ppt\/slides\/slide\d+\.xml$/.test(name)).sort((a, b) => numberIn(a) - numberIn(b))
    sink.facts.pages = slides.length
    for (const [index, name] of slides.entries()) {
      const pieces = new Pieces()
      await readParagraphs(parts, name, pieces)
      await pieces.handOver(sink, `Slide ${index + 1}`)
    }
  })

export const readSpreadsheet: Reader = async (path, sink) => {
  await withPackage(path, parts => readProperties(parts, CORE, sink))
  await readSheets(path, sink, readWorkbook)
}

export const readOpenDocument: Reader = (path, sink) =>
  withPackage(path, async parts => {
    if (!parts.has('content.xml')) throw new Unreadable('The document is damaged: its text is missing.')
    await readProperties(parts, 'meta.xml', sink)
    let pieces = new Pieces()
    const slides: Pieces[] = []
    let depth = 0
    await parts.xml('content.xml', {
      open(tag) {
        if (tag === 'page') slides.push((pieces = new Pieces()))
        else if (tag === 'p' || tag === 'h') depth++
        else if (tag === 'tab') pieces.add('\t')
        else if (tag === 's') pieces.add(' ')
      },
      text: piece => depth && pieces.add(piece),
      close(tag) {
        if (tag !== 'p' && tag !== 'h') return
        depth--
        pieces.add('\n')
      },
      wanted: () => !pieces.enough,
    })
    if (slides.length) sink.facts.pages = slides.length
    else await pieces.handOver(sink, '')
    for (const [index, slide] of slides.entries()) await slide.handOver(sink, `Slide ${index + 1}`)
  })

export const readOpenSheets: Reader = async (path, sink) => {
  await withPackage(path, parts => readProperties(parts, 'meta.xml', sink))
  await readSheets(path, sink, readOpenSpreadsheet)
}
