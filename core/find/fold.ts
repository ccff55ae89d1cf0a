// Letters that decomposition leaves whole.
const WHOLE: Record<string, string> = { ß: 'ss', æ: 'ae', ø: 'o', œ: 'oe', ł: 'l', đ: 'd', ð: 'd', þ: 'th', ı: 'i' }

/** Text as it is compared: small letters without accents (Unicode Standard Annex 15, NFKD, marks dropped). */
export function fold(text: string): string {
  // Most names are plain: they need no decomposition.
  // eslint-disable-next-line no-control-regex
  if (/^[\u0000-\u007F]*$/.test(text)) return text.toLowerCase()
  return text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[ßæøœłđðþı]/g, letter => WHOLE[letter]!)
}

const WORD = /[\p{L}\p{N}]+/gu
/** Longer runs are not words anybody types: encoded bytes, drawn lines. */
const LONGEST = 60

/** Letters of scripts that are written without spaces between words (Unicode Standard Annex 29, section 4). */
const UNSPACED = '\\p{scx=Han}\\p{scx=Hiragana}\\p{scx=Katakana}\\p{scx=Thai}\\p{scx=Lao}\\p{scx=Khmer}\\p{scx=Myanmar}'
const UNSPACED_LETTER = new RegExp(`[${UNSPACED}]`, 'u')
const STRETCHES = new RegExp(`[${UNSPACED}]+|[^${UNSPACED}]+`, 'gu')

/** Whether something is written without spaces around it: then it is found wherever it stands. */
export const isUnspaced = (text: string): boolean => UNSPACED_LETTER.test(text)

/** Neighbouring letters in twos, each with the next, and the last by itself: what stands in a run is found without knowing its words. */
function pairsOf(run: string): string[] {
  const letters = [...run]
  return letters.map((letter, index) => letter + (letters[index + 1] ?? ''))
}

const wordsIn = (run: string): string[] =>
  isUnspaced(run) ? (run.match(STRETCHES) ?? []).flatMap(stretch => (isUnspaced(stretch) ? pairsOf(stretch) : [stretch])) : [run]

/** The words of a text, folded, in their order; of runs without spaces the letters in twos. */
export function wordsOf(text: string): string[] {
  return (
    fold(text)
      .match(WORD)
      ?.flatMap(wordsIn)
      .filter(word => word.length <= LONGEST) ?? []
  )
}
