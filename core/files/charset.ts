import { analyse } from 'chardet'

/** What nearly all text has that names no encoding. */
const UTF8 = 'utf-8'

/** What is taken for text that is like nothing else: each byte is a letter of Western Europe, or next to it. */
const WESTERN = 'windows-1252'
/** Names of the Encoding Standard (WHATWG) for what a reading of bytes may come to. */
const ONE_BYTE: Record<string, string> = {
  'ISO-8859-1': WESTERN,
  'windows-1252': WESTERN,
  'KOI8-R': 'koi8-r',
  'windows-1250': 'windows-1250',
  'windows-1251': 'windows-1251',
  'windows-1253': 'windows-1253',
  'windows-1254': 'windows-1254',
  'windows-1255': 'windows-1255',
  'windows-1256': 'windows-1256',
  'ISO-8859-2': 'iso-8859-2',
  'ISO-8859-5': 'iso-8859-5',
  'ISO-8859-7': 'iso-8859-7',
}
const SEVERAL_BYTES: Record<string, string> = {
  'Shift_JIS': 'shift_jis',
  'EUC-JP': 'euc-jp',
  'EUC-KR': 'euc-kr',
  'Big5': 'big5',
  'GB18030': 'gb18030',
}
/** Percent of certainty below which a reading is a guess; two letters with accents are easily taken for one of Chinese. */
const SURE = { one: 30, several: 80 }

const reads = (sample: Uint8Array, charset: string): boolean => {
  try {
    // The last character may be cut off.
    new TextDecoder(charset, { fatal: true }).decode(sample, { stream: true })
    return true
  } catch {
    return false
  }
}

/** Line ends, tabs, form feeds and the escape of Japanese mail are in texts, other control characters are not. */
const isControl = (byte: number) => (byte < 0x20 && !(byte >= 0x09 && byte <= 0x0d) && byte !== 0x1b) || byte === 0x7f

/** UTF-16 without a mark: of most characters one byte is 0, always on the same side. */
function unmarkedUtf16(sample: Uint8Array): string | undefined {
  const zeros = [0, 0]
  for (let index = 0; index < sample.length; index++) if (sample[index] === 0) zeros[index % 2]!++
  const [even, odd] = zeros as [number, number]
  const many = sample.length * 0.3
  if (odd > many && !even) return 'utf-16le'
  return even > many && !odd ? 'utf-16be' : undefined
}

/** The mark that a text begins with (Encoding Standard, "BOM sniff"). */
export function markOf([first, second, third]: Uint8Array): string | undefined {
  if (first === 0xef && second === 0xbb && third === 0xbf) return UTF8
  if (first === 0xff && second === 0xfe) return 'utf-16le'
  return first === 0xfe && second === 0xff ? 'utf-16be' : undefined
}

/**
 * The encoding of a text by its beginning; undefined where the bytes are no text.
 *
 * @returns a name of the Encoding Standard, in small letters
 */
export function charsetOf(sample: Uint8Array): string | undefined {
  const marked = markOf(sample) ?? unmarkedUtf16(sample)
  if (marked) return reads(sample, marked) ? marked : undefined
  if (sample.includes(0)) return undefined
  if (reads(sample, UTF8)) return UTF8
  if (sample.some(isControl)) return undefined
  for (const { name, confidence } of analyse(sample)) {
    const found = confidence >= SURE.several ? (SEVERAL_BYTES[name] ?? ONE_BYTE[name]) : confidence >= SURE.one ? ONE_BYTE[name] : undefined
    if (found && reads(sample, found)) return found
  }
  return WESTERN
}
