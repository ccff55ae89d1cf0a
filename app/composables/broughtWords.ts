import type { Found, ImportFormat, LeftOut } from '~~/core/tally/brought/brought'

export const FORMAT_WORDS: Record<ImportFormat, string> = {
  combined: 'Access log (Combined format)',
  w3c: 'Access log (W3C Extended format)',
  counts: 'Table of days, files and counts',
}

/** Why lines are not counted, in the order they are told. */
const LEFT_WORDS: [LeftOut, string][] = [
  ['other', 'ask for something that is no file here'],
  ['notAsked', 'were given no file: looked whether it was new, or were led on'],
  ['robot', 'are robots'],
  ['repeated', 'press again within half a minute'],
  ['broken', 'broke off, or are pieces of one that is counted'],
  ['later', 'are of a time when Trough counted by itself'],
  ['unreadable', 'cannot be read'],
]
/** Lines that are left out, by why, each with its number; those that are none are not told. */
export const leftWords = ({ left }: Found): { why: string; count: number }[] =>
  LEFT_WORDS.flatMap(([key, why]) => (left[key] ? [{ why, count: left[key] }] : []))
