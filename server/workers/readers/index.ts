import { readArchive } from './archive'
import { readBook } from './book'
import { readMedia } from './media'
import { readOpenDocument, readOpenSheets, readSlides, readSpreadsheet, readWord } from './office'
import { readPdf } from './pdf'
import { readPicture } from './picture'
import type { Reader } from './reader'
import { readHtml, readText } from './text'

const OOXML = 'application/vnd.openxmlformats-officedocument.'
const ODF = 'application/vnd.oasis.opendocument.'

const READERS: [RegExp | string, Reader][] = [
  ['application/pdf', readPdf],
  [/^image\/(?:png|jpeg|gif|webp|avif|tiff|svg\+xml)$/, readPicture],
  [`${OOXML}wordprocessingml.document`, readWord],
  [`${OOXML}spreadsheetml.sheet`, readSpreadsheet],
  [`${OOXML}presentationml.presentation`, readSlides],
  [`${ODF}text`, readOpenDocument],
  [`${ODF}presentation`, readOpenDocument],
  [`${ODF}spreadsheet`, readOpenSheets],
  ['application/epub+zip', readBook],
  [/^application\/(?:x-)?zip(?:-compressed)?$/, readArchive],
  [/^text\/html$|xhtml/, readHtml],
  [/^text\/|\/json$|\/xml$|\/(?:x-)?yaml$/, readText],
  [/^(?:audio|video)\//, readMedia],
]

/** The reader for a media type; none where there is nothing to read in it. */
export const readerFor = (mediaType: string): Reader | undefined =>
  READERS.find(([type]) => (typeof type === 'string' ? type === mediaType : type.test(mediaType)))?.[1]
