import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'

/** What somebody handed in, as they are told of it. */
export interface Receipt {
  number: number
  /** ISO 8601 */
  at: string
  email: string
  files: { fileName: string; /** bytes */ size: number; /** hexadecimal */ sha256: string }[]
  /** a message with the same is on its way to them */
  written: boolean
}

/** Says what has arrived: its number, and the checksum of each file, by which it can be shown later what was sent. */
export function receiptHtml({ number, at, email, files, written }: Receipt, speech: Speech): string {
  const say = (...said: Parameters<Speech['say']>) => escapeHtml(speech.say(...said))
  const rows = files.map(
    ({ fileName, size, sha256 }) =>
      `<li><b>${escapeHtml(fileName)}</b>, ${escapeHtml(speech.size(size))}<br><span class="tr-note">${say('receiptSum')}: <code>${sha256}</code></span></li>`,
  )
  return [
    `<h1>${say('receivedTitle', { number: String(number) })}</h1>`,
    `<p>${say('receivedDetail', { day: speech.day(at) })} ${written ? say('receivedWritten', { email }) : ''}</p>`,
    `<ul class="tr-receipt">${rows.join('')}</ul>`,
  ].join('\n')
}

export const RECEIPT_CSS = `
.tr-receipt code{overflow-wrap:anywhere;font-size:.9em}
.tr-receipt li{margin-block:.7em;overflow-wrap:anywhere}`

/** The same for a message. */
export const receiptWords = ({ number, files }: Pick<Receipt, 'number' | 'files'>, site: string, speech: Speech): string =>
  [
    speech.say('mailReceivedText', { site, number: String(number) }),
    ...files.map(({ fileName, size, sha256 }) => `${fileName}, ${speech.size(size)}, SHA-256 ${sha256}`),
  ].join('\n')
