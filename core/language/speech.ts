import { SIZE_UNITS, scaledSize } from '../files/size'
import { LANGUAGES, type Language } from './languages'
import { roundedDown, type CountsTold } from './rounded'
import type { OwnWords } from './words/ownWords'
import { WORDS, type WordKey } from './words/words'

/** How a site speaks to its visitors. */
export interface Speech {
  language: Language
  /** Fixed words with what is put into them; by the number in `count` where they have plural forms. */
  say: (key: WordKey, values?: Record<string, string | number>) => string
  /** Which of two titles comes first where readers look for them: by the rules of the language, numbers by their value (CLDR). */
  compare: (a: string, b: string) => number
  /** A day in the site's way: `28 Nov 2026`. */
  day: (iso: string) => string
  /** How often something was taken: as it is, or by its leading figures, as the site tells it. */
  downloads: (count: number) => string
  /** A number as it is written there. */
  number: (value: number) => string
  /** A number with that many digits behind the decimal sign; as many as it has where that is null. */
  decimal: (value: number, digits: number | null) => string
  /** An amount of a currency by ISO 4217. */
  money: (value: number, currency: string) => string
  /** A size in decimal units with SI prefixes (IEC 80000-13); French counts in octets. */
  size: (bytes: number) => string
}

/** What stands for the byte in units: French counts in octets (common practice there). */
const BYTE: Partial<Record<Language, string>> = { fr: 'o' }

const filled = (text: string, values: Record<string, string>) =>
  text.replace(/\{(\w+)\}/g, (whole, name: string) => (Object.hasOwn(values, name) ? values[name]! : whole))

function makeFormats(language: Language) {
  const { locale } = LANGUAGES[language]
  const [whole, decimal] = [0, 1].map(digits => new Intl.NumberFormat(locale, { maximumFractionDigits: digits }))
  const kept = new Map<string, Intl.NumberFormat>()
  return {
    /** Made once for each way of writing. */
    figures(key: string, options: Intl.NumberFormatOptions): Intl.NumberFormat {
      const known = kept.get(key) ?? new Intl.NumberFormat(locale, options)
      kept.set(key, known)
      return known
    },
    plurals: new Intl.PluralRules(locale),
    compare: new Intl.Collator(locale, { numeric: true }).compare,
    days: new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }),
    number: (value: number, decimals = 0) => (decimals ? decimal! : whole!).format(value),
  }
}
const formats = new Map<Language, ReturnType<typeof makeFormats>>()
/** Made once: they are dear, and visitors who ask for what is nowhere are answered with them as well. */
function formatsOf(language: Language) {
  const known = formats.get(language) ?? makeFormats(language)
  formats.set(language, known)
  return known
}

/** How a site speaks that has a language, and says some things in words of its own. */
export function speechOf(language: Language, own: OwnWords = {}, counts: CountsTold = 'exact'): Speech {
  const words = WORDS[language]
  const { plurals, compare, days, number, figures } = formatsOf(language)
  const textOf = (key: WordKey, count: number): string => {
    const word = words[key]
    return own[key] ?? (typeof word === 'string' ? word : (word[plurals.select(count)] ?? word.other))
  }
  return {
    language,
    say(key, values = {}) {
      return filled(
        textOf(key, Number(values.count)),
        Object.fromEntries(Object.entries(values).map(([name, value]) => [name, typeof value === 'number' ? number(value) : value])),
      )
    },
    downloads(count) {
      const told = counts === 'rounded' ? roundedDown(count) : count
      return filled(textOf('downloadCount', told), { count: `${number(told)}${told < count ? '+' : ''}` })
    },
    compare,
    number: value => number(value),
    decimal: (value, digits) =>
      figures(
        `d${digits ?? ''}`,
        digits === null ? { maximumFractionDigits: 6 } : { minimumFractionDigits: digits, maximumFractionDigits: digits },
      ).format(value),
    money: (value, currency) => figures(`m${currency}`, { style: 'currency', currency }).format(value),
    day: iso => days.format(new Date(iso)),
    size(bytes) {
      const { value, decimals, unit } = scaledSize(bytes)
      return `${number(value, decimals)} ${SIZE_UNITS[unit]!.replace('B', BYTE[language] ?? 'B')}`
    },
  }
}
