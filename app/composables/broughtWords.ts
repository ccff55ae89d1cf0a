import type { Found, ImportFormat, LeftOut } from '~~/core/tally/brought/brought'

export const FORMAT_WORDS: Record<ImportFormat, string> = {
  combined: 'Access log (Combined format)',
  w3c: 'Access log (W3C Extended format)',
  counts: 'Table of days, files and counts',
}

/** Why lines are not counted, in the order they are told. */
const LEFT_WORDS: [LeftOut, string][] = [
  ['other', 'something that is no file here'],
  ['notAsked', 'given no file: asked whether it was new, or led on'],
  ['robot', 'robots'],
  ['repeated', 'pressed again within half a minute'],
  ['broken', 'broken off, or pieces of one that is counted'],
  ['later', 'of a time when Trough counted by itself'],
  ['unreadable', 'unreadable'],
]
/** Lines that are left out, by why, each with its number; those that are none are not told. */
export const leftWords = ({ left }: Found): { why: string; count: number }[] =>
  LEFT_WORDS.flatMap(([key, why]) => (left[key] ? [{ why, count: left[key] }] : []))
