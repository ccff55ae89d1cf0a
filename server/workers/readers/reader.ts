import type { Facts } from '../../../core/files/fileItem'
import type { Programs } from '../../../core/files/programs'

/** A stretch of a document's text: a page, a sheet, a slide, or a piece of a long run. */
export interface Part {
  /** what people call it, such as "Page 3"; empty where the document has no such thing */
  part: string
  body: string
}

/** Where a reader puts what it finds, as it finds it. */
export interface Sink {
  facts: Facts
  /** takes a part; resolves when more can be taken; false once enough was read */
  take(part: string, body: string): Promise<boolean>
  /** where the picture of the first page goes */
  picture: string
  pictured: boolean
  /** where the pages of an office document go, as a PDF */
  pages: string
  /** what the machine has to read more with */
  programs: Programs
}

/** Reads one kind of file. */
export type Reader = (path: string, sink: Sink) => Promise<void>

/** Why a file cannot be read, in words for its owner. */
export class Unreadable extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'Unreadable'
  }
}
