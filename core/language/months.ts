import { LANGUAGES, LANGUAGE_CODES, type Language } from './languages'

/** How a month's name is written: beside a day ("1 listopada"), by itself ("listopad"), or cut short. */
type Form = 'beside' | 'alone' | 'short'

/** A month's name in one of the languages a site can speak. */
export interface NamedMonth {
  /** 1 to 12 */
  month: number
  language: Language
  form: Form
}

const MONTHS = Array.from({ length: 12 }, (_, index) => new Date(Date.UTC(2026, index, 1)))

/** The twelve names of a language, as CLDR has them. */
function namesOf(language: Language, form: Form): string[] {
  const { locale } = LANGUAGES[language]
  if (form !== 'beside') {
    const alone = new Intl.DateTimeFormat(locale, { month: form === 'short' ? 'short' : 'long', timeZone: 'UTC' })
    return MONTHS.map(date => alone.format(date).replace(/\.$/, ''))
  }
  const beside = new Intl.DateTimeFormat(locale, { month: 'long', day: 'numeric', timeZone: 'UTC' })
  return MONTHS.map(date => beside.formatToParts(date).find(({ type }) => type === 'month')!.value)
}

/** Every name, and what each word names: made when a month is first asked for, since reading eight languages takes a start's time. */
function makeTables() {
  const names = Object.fromEntries(
    LANGUAGE_CODES.map(language => [
      language,
      { beside: namesOf(language, 'beside'), alone: namesOf(language, 'alone'), short: namesOf(language, 'short') },
    ]),
  ) as Record<Language, Record<Form, string[]>>
  const known = new Map<string, NamedMonth>([['sept', { month: 9, language: 'en', form: 'short' }]])
  for (const language of LANGUAGE_CODES)
    // Short names of other languages are words of their own in English: "set", "out", "mar".
    for (const form of ['alone', 'beside', ...(language === 'en' ? (['short'] as const) : [])] as const)
      names[language][form].forEach((name, index) => {
        const word = name.toLowerCase()
        if (!known.has(word)) known.set(word, { month: index + 1, language, form })
      })
  return { names, known }
}
let made: ReturnType<typeof makeTables> | undefined
const tables = () => (made ??= makeTables())

/** The month a word names, in whichever language; "Sept" is one, too. */
export const monthOf = (word: string): NamedMonth | undefined => tables().known.get(word.toLowerCase())

/** The name of another month, in the language and form of one that stands there. */
export const monthLike = ({ language, form }: NamedMonth, month: number): string => tables().names[language][form][month - 1]!
