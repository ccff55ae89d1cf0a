import { z } from 'zod'
import { FAMILIES, type Family } from '../files/mediaType'

/** Most files that are handed in at once, and most megabytes of each. */
export const MOST_AT_ONCE = 20
export const LARGEST = 2000

const MEGABYTE = 1_000_000
/** Bytes beside the files: fields, and what stands between the parts. */
const AROUND = 200_000

/** What a letterbox on a page takes, and how it asks for it. */
export const letterboxAttrsSchema = z.object({
  placement: z.string().regex(/^[a-z0-9]{6,16}$/),
  /** what stands above it; empty for the site's own words */
  label: z.string().max(200),
  /** what it asks for, in the owner's words */
  text: z.string().max(2000),
  /** identity of the folder what comes in lies in; null for the top of the library */
  folder: z.string().max(40).nullable(),
  /** kinds of files it takes; none for all */
  kinds: z.array(z.enum(FAMILIES)).max(FAMILIES.length),
  /** files at once */
  most: z.number().int().min(1, 'Take one file at least.').max(MOST_AT_ONCE, `Take at most ${MOST_AT_ONCE} files at once.`),
  /** megabytes of each */
  largest: z.number().int().min(1, 'Take files of a megabyte at least.').max(LARGEST, `Take files of at most ${LARGEST} MB.`),
})
export type LetterboxAttrs = z.infer<typeof letterboxAttrsSchema>

/** Bytes that one file may have. */
export const bytesEach = ({ largest }: Pick<LetterboxAttrs, 'largest'>): number => largest * MEGABYTE

/** Bytes of all that is sent at once. */
export const bytesInAll = (attrs: Pick<LetterboxAttrs, 'largest' | 'most'>): number => attrs.most * bytesEach(attrs) + AROUND

/** Whether files of a family are taken. */
export const takes = ({ kinds }: Pick<LetterboxAttrs, 'kinds'>, family: Family): boolean => !kinds.length || kinds.includes(family)

const HAND_IN = '/hand-in/'
export const handInPath = (placement: string): string => HAND_IN + placement
/** Where a receipt is read. @param sealed says that it was given here */
export const receiptPath = (sealed: string): string => `${HAND_IN}receipt/${encodeURIComponent(sealed)}`

/** Names of what its form sends, in the order in which they come: who they are from is known before the files. */
export const LETTERBOX_FIELDS = { name: 'name', email: 'email', words: 'words', answers: 'answers', files: 'files' } as const

/** What visitors' browsers offer first when they choose files of some kinds. */
const ACCEPTED: Partial<Record<Family, string>> = {
  document: '.pdf,.doc,.docx,.odt,.rtf,.txt,.epub',
  sheet: '.csv,.xls,.xlsx,.ods',
  slides: '.ppt,.pptx,.odp',
  picture: 'image/*',
  sound: 'audio/*',
  film: 'video/*',
  archive: '.zip,.7z,.tar,.gz,.rar',
}

/** The `accept` of its field (HTML, input type file); empty where everything is taken. */
export const acceptOf = (kinds: readonly Family[]): string =>
  kinds.every(kind => ACCEPTED[kind]) ? kinds.map(kind => ACCEPTED[kind]).join(',') : ''
