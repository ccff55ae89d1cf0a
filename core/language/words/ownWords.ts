import { z } from 'zod'
import { en } from './en'
import type { WordKey } from './words'

export const WORD_KEYS = Object.keys(en) as [WordKey, ...WordKey[]]

/** Words the owner says otherwise; all forms of a counted one get the same. */
export const ownWordsSchema = z.partialRecord(
  z.enum(WORD_KEYS),
  z.string().trim().min(1, 'Write something, or leave the words as they are.').max(300, 'Keep it to 300 characters.'),
)
export type OwnWords = z.infer<typeof ownWordsSchema>
