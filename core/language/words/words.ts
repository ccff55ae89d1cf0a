import { z } from 'zod'
import type { Language } from '../languages'
import { de } from './de'
import { en, type Words } from './en'
import { es } from './es'
import { fr } from './fr'
import { it } from './it'
import { nl } from './nl'
import { pl } from './pl'
import { pt } from './pt'

/** Everything Trough itself says to visitors, in each language a site can speak. */
export const WORDS: Record<Language, Words> = { en, de, fr, es, it, nl, pl, pt }

export type WordKey = keyof Words
export const WORD_KEYS = Object.keys(en) as [WordKey, ...WordKey[]]

/** Words the owner says otherwise; all forms of a counted one get the same. */
export const ownWordsSchema = z.partialRecord(
  z.enum(WORD_KEYS),
  z.string().trim().min(1, 'Write something, or leave the words as they are.').max(300, 'Keep it to 300 characters.'),
)
export type OwnWords = z.infer<typeof ownWordsSchema>
