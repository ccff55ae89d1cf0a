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

/** The words of a text, folded, in their order. */
export function wordsOf(text: string): string[] {
  return (
    fold(text)
      .match(WORD)
      ?.filter(word => word.length <= LONGEST) ?? []
  )
}
