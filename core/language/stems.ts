import { stemmer as dutch } from '@orama/stemmers/dutch'
import { stemmer as english } from '@orama/stemmers/english'
import { stemmer as french } from '@orama/stemmers/french'
import { stemmer as german } from '@orama/stemmers/german'
import { stemmer as italian } from '@orama/stemmers/italian'
import { stemmer as portuguese } from '@orama/stemmers/portuguese'
import { stemmer as spanish } from '@orama/stemmers/spanish'
import type { Stem } from '../find/question'
import type { Language } from './languages'

/** How words are taken back to their stems, by the Snowball algorithms; Polish has none among them. */
export const STEMS: Partial<Record<Language, Stem>> = {
  en: english,
  de: german,
  fr: french,
  es: spanish,
  it: italian,
  nl: dutch,
  pt: portuguese,
}
