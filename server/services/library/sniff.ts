import { open } from 'node:fs/promises'
import { fileTypeFromFile } from 'file-type'
import { charsetOf, markOf } from '../../../core/files/charset'
import { UNKNOWN_TYPE, registeredType, typeFromName } from '../../../core/files/mediaType'

const SAMPLE = 64 * 1024

/** @param text its beginning */
function textType(text: string, fileName: string): string {
  const start = text.trimStart().slice(0, 512)
  if (/^(?:<\?xml[^>]*>\s*)?(?:<!--.*?-->\s*)?(?:<!DOCTYPE svg[^>]*>\s*)?<svg[\s>]/is.test(start)) return 'image/svg+xml'
  if (/^<(?:!doctype html|html|head|body|script)[\s>]/i.test(start)) return 'text/html'
  const promised = typeFromName(fileName)
  // A name decides between kinds of text, but must not turn text into a picture.
  if (
    /^text\/|json|xml|yaml|javascript|x-sh|sql|rtf|^message\/rfc822$|vnd\.dxf$|x-tex$|x-subrip$/.test(promised) &&
    !/openxmlformats|^image\/(?!vnd\.dxf)|opendocument/.test(promised)
  )
    return promised
  return /^<\?xml/i.test(start) ? 'application/xml' : 'text/plain'
}

/** What stands first in every OpenDocument package, unpacked (OpenDocument 1.3, part 2, 3.3), right behind the header of its entry. */
const OPEN_DOCUMENT = 'application/vnd.oasis.opendocument.'

export interface Sniffed {
  mediaType: string
  /** of text that is not in UTF-8; a name of the Encoding Standard */
  charset?: string
}

/**
 * The media type of a file by its bytes; the name is asked only where the bytes allow several, as all
 * text does, and old office files in their common container do.
 */
export async function sniffType(path: string, fileName: string): Promise<Sniffed> {
  const handle = await open(path, 'r')
  let sample: Buffer
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(SAMPLE), 0, SAMPLE, 0)
    sample = buffer.subarray(0, bytesRead)
  } finally {
    await handle.close()
  }
  const promised = typeFromName(fileName)
  if (!sample.length) return { mediaType: promised }

  const charset = charsetOf(sample)
  const asText = (): Sniffed =>
    charset
      ? {
          mediaType: textType(new TextDecoder(charset).decode(sample), fileName),
          ...(charset !== 'utf-8' && { charset }),
        }
      : { mediaType: UNKNOWN_TYPE }
  // Else the mark of UTF-16, FF FE, is taken for the beginning of sound.
  if (charset && markOf(sample) === charset && charset !== 'utf-8') return asText()
  const found = (await fileTypeFromFile(path))?.mime
  const detected = found && registeredType(found)
  // Others than the usual ones, such as those made of web pages, are documents of their office all the same.
  if (detected === 'application/zip' && promised.startsWith(OPEN_DOCUMENT) && sample.toString('latin1', 38).startsWith(OPEN_DOCUMENT))
    return { mediaType: promised }
  if (detected === 'application/x-cfb') return { mediaType: /ms-|msword/.test(promised) ? promised : detected }
  return detected && !/^(?:application|text)\/xml$/.test(detected) ? { mediaType: detected } : asText()
}
