import { open } from 'node:fs/promises'
import { fileTypeFromFile } from 'file-type'
import { UNKNOWN_TYPE, typeFromName } from '../../../core/files/mediaType'

const SAMPLE = 64 * 1024

/** Whether a sample reads as UTF-8 text: no NUL, and no broken sequence before its last character. */
function looksLikeText(sample: Buffer): boolean {
  if (sample.includes(0)) return false
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(sample, { stream: true })
    return true
  } catch {
    return false
  }
}

function textType(sample: Buffer, fileName: string): string {
  const start = sample.toString('utf8').trimStart().slice(0, 512)
  if (/^(?:<\?xml[^>]*>\s*)?(?:<!--.*?-->\s*)?(?:<!DOCTYPE svg[^>]*>\s*)?<svg[\s>]/is.test(start)) return 'image/svg+xml'
  if (/^<(?:!doctype html|html|head|body|script)[\s>]/i.test(start)) return 'text/html'
  const promised = typeFromName(fileName)
  // A name decides between kinds of text, but must not turn text into a picture.
  if (/^text\/|json|xml|yaml|javascript|x-sh|sql|rtf/.test(promised) && !/openxmlformats|^image\/|opendocument/.test(promised))
    return promised
  return /^<\?xml/i.test(start) ? 'application/xml' : 'text/plain'
}

/**
 * The media type of a file by its bytes; the name is asked only where the bytes allow several, as all
 * text does, and old office files in their common container do.
 */
export async function sniffType(path: string, fileName: string): Promise<string> {
  const handle = await open(path, 'r')
  let sample: Buffer
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(SAMPLE), 0, SAMPLE, 0)
    sample = buffer.subarray(0, bytesRead)
  } finally {
    await handle.close()
  }
  if (!sample.length) return typeFromName(fileName)

  const detected = (await fileTypeFromFile(path))?.mime
  const promised = typeFromName(fileName)
  if (detected === 'application/x-cfb') return /ms-|msword/.test(promised) ? promised : detected
  if (detected && !/^(?:application|text)\/xml$/.test(detected)) return detected
  return looksLikeText(sample) ? textType(sample, fileName) : UNKNOWN_TYPE
}
