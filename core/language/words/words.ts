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
