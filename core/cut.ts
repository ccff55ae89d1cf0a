// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u001F]+/g
const isHigh = (unit: number) => unit >= 0xd800 && unit <= 0xdbff
const isLow = (unit: number) => unit >= 0xdc00 && unit <= 0xdfff

/** The place at or right before another where no character is cut in two (The Unicode Standard, 3.8: surrogates). */
export const wholeAt = (text: string, at: number): number =>
  at > 0 && at < text.length && isHigh(text.charCodeAt(at - 1)) && isLow(text.charCodeAt(at)) ? at - 1 : at

/** The beginning of a text, at most so many UTF-16 units, with no half of a character at its end: databases refuse those in JSON. */
export const cut = (text: string, most: number): string => text.slice(0, wholeAt(text, most))

/** What an address asks for, whatever was typed there: in one line, of a length, and without what no text of a database may hold. */
export const askedWords = (text: string | null, most: number): string => cut((text ?? '').toWellFormed().replace(CONTROL, ' ').trim(), most)
