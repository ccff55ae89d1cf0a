import cfb from 'cfb'
import { Unreadable, type Reader } from './reader'
import { bytesOf, refusal } from './wholeDocument'

// Records of [MS-PPT], 2.13.24.
const SLIDE = 0x03ee
const SLIDE_LIST = 0x0ff0
const SLIDE_IN_LIST = 0x03f3
const WIDE_TEXT = 0x0fa0
const NARROW_TEXT = 0x0fa8
/** deeper than any presentation nests its records */
const DEEPEST = 20

interface OldRecord {
  type: number
  instance: number
  content: Buffer
  /** it holds other records */
  holds: boolean
}

/** The records that lie in some bytes one behind the other ([MS-PPT], 2.3.1); what is cut off is left out. */
function* recordsIn(bytes: Buffer): Generator<OldRecord> {
  for (let at = 0; at + 8 <= bytes.length;) {
    const [head, type, length] = [bytes.readUInt16LE(at), bytes.readUInt16LE(at + 2), bytes.readUInt32LE(at + 4)]
    const content = bytes.subarray(at + 8, at + 8 + length)
    yield { type, instance: head >> 4, content, holds: (head & 15) === 15 }
    at += 8 + length
  }
}

/** The texts in a record, those of records in it too. */
function textsIn({ type, content, holds }: OldRecord, depth = 0): string[] {
  // Paragraphs end with a carriage return, lines in them with a vertical tab ([MS-PPT], 2.9.42).
  if (type === WIDE_TEXT) return [content.toString('utf16le').replace(/[\r\v]/g, '\n')]
  if (type === NARROW_TEXT) return [content.toString('latin1').replace(/[\r\v]/g, '\n')]
  return holds && depth < DEEPEST ? [...recordsIn(content)].flatMap(record => textsIn(record, depth + 1)) : []
}

/** The texts of each slide: those in its outline, and those that stand in boxes on it. */
function slidesIn(stream: Buffer): string[][] {
  const outlines: string[][] = []
  const boxes: string[][] = []
  for (const record of recordsIn(stream)) {
    if (record.type === SLIDE) boxes.push(textsIn(record))
    for (const { type, instance, content } of record.holds ? recordsIn(record.content) : []) {
      // Instances tell slides from masters and notes ([MS-PPT], 2.4.14.3).
      if (type !== SLIDE_LIST || instance !== 0) continue
      for (const inner of recordsIn(content)) {
        if (inner.type === SLIDE_IN_LIST) outlines.push([])
        else outlines.at(-1)?.push(...textsIn(inner))
      }
    }
  }
  return Array.from({ length: Math.max(outlines.length, boxes.length) }, (_, index) => [
    ...(outlines[index] ?? []),
    ...(boxes[index] ?? []),
  ])
}

/** PowerPoint 97 to 2003 ([MS-PPT]). */
export const readOldSlides: Reader = async (path, sink) => {
  const bytes = await bytesOf(path)
  let stream
  try {
    stream = cfb.find(cfb.read(bytes, { type: 'buffer' }), 'PowerPoint Document')
  } catch (error) {
    throw refusal(error)
  }
  if (!stream) throw new Unreadable('The presentation is damaged: its slides are missing.')
  const slides = slidesIn(Buffer.from(stream.content))
  sink.facts.pages = slides.length
  for (const [index, texts] of slides.entries()) if (!(await sink.take(`Slide ${index + 1}`, texts.join('\n')))) break
}
