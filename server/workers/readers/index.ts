import { isPacked } from '../../../core/files/mediaType'
import { readArchive } from './archive'
import { readBook } from './book'
import { readLetter } from './letter'
import { readMedia } from './media'
import { readOldSheets, readOldWord } from './oldOffice'
import { readOldSlides } from './oldSlides'
import { readPacked } from './packed'
import { readOpenDocument, readOpenSheets, readSlides, readSpreadsheet, readWord } from './office'
import { readPdf } from './pdf'
import { readPicture } from './picture'
import { readRichText } from './richText'
import type { Reader } from './reader'
import { readHtml, readText } from './text'

const OOXML = 'application/vnd.openxmlformats-officedocument.'
const ODF = 'application/vnd.oasis.opendocument.'

const READERS: [RegExp | string | ((mediaType: string) => boolean), Reader][] = [
  ['application/pdf', readPdf],
  [/^image\/(?:png|jpeg|gif|webp|avif|tiff|svg\+xml|bmp|hei[cf])$/, readPicture],
  [`${OOXML}wordprocessingml.document`, readWord],
  [`${OOXML}spreadsheetml.sheet`, readSpreadsheet],
  [`${OOXML}presentationml.presentation`, readSlides],
  [`${ODF}text`, readOpenDocument],
  [`${ODF}presentation`, readOpenDocument],
  [`${ODF}spreadsheet`, readOpenSheets],
  ['application/msword', readOldWord],
  ['application/vnd.ms-excel', readOldSheets],
  ['application/vnd.ms-powerpoint', readOldSlides],
  [/^(?:application|text)\/rtf$/, readRichText],
  ['application/epub+zip', readBook],
  [/^application\/(?:x-)?zip(?:-compressed)?$/, readArchive],
  [isPacked, readPacked],
  [/^text\/html$|xhtml/, readHtml],
  ['message/rfc822', readLetter],
  [/^text\/|\/json$|\/xml$|\/(?:x-)?yaml$/, readText],
  [/^(?:audio|video)\//, readMedia],
]

/** The reader for a media type; none where there is nothing to read in it. */
export const readerFor = (mediaType: string): Reader | undefined =>
  READERS.find(([type]) =>
    typeof type === 'string' ? type === mediaType : typeof type === 'function' ? type(mediaType) : type.test(mediaType),
  )?.[1]
