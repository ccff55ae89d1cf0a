import { z } from 'zod'
import { Temporal } from 'temporal-polyfill'

export const SUMMARY_EVERY = ['never', 'week', 'month'] as const
export type SummaryEvery = (typeof SUMMARY_EVERY)[number]

/** Whether, how often and to whom it is told what was taken. */
export const summaryFormSchema = z
  .object({
    every: z.enum(SUMMARY_EVERY).default('never'),
    to: z.union([z.literal(''), z.email('Give an e-mail address, such as shop@example.com.').max(254)]).default(''),
  })
  .refine(({ every, to }) => every === 'never' || to !== '', { error: 'Say to whom it shall be sent.', path: ['to'] })
export type SummaryForm = z.infer<typeof summaryFormSchema>

/** A stretch of whole days that has ended, ISO 8601; the last one is inside. */
export interface Period {
  firstDay: string
  lastDay: string
}

/** Nobody reads a summary at midnight: it is told from this hour on, by the clocks of the site. */
const FROM_HOUR = 7

/**
 * The last week (from Monday on, ISO 8601) or month that has ended, from seven in the morning of the day after.
 *
 * @param now milliseconds since 1970
 */
export function lastPeriod(every: Exclude<SummaryEvery, 'never'>, now: number, zone: string): Period {
  const clock = Temporal.Instant.fromEpochMilliseconds(now).toZonedDateTimeISO(zone)
  const today = clock.subtract({ hours: FROM_HOUR }).toPlainDate()
  const begun = every === 'week' ? today.subtract({ days: today.dayOfWeek - 1 }) : today.with({ day: 1 })
  const first = every === 'week' ? begun.subtract({ days: 7 }) : begun.subtract({ months: 1 })
  return { firstDay: first.toString(), lastDay: begun.subtract({ days: 1 }).toString() }
}

export interface Compared {
  title: string
  count: number
  /** in the period before */
  before: number
}
/** What a summary tells. */
export interface SummaryFacts {
  total: number
  before: number
  files: Compared[]
  /** files of which downloads broke off */
  broken: { title: string; count: number }[]
  /** addresses at which visitors found nothing */
  missing: { address: string; count: number }[]
  /** words that were looked for in vain */
  unfound: { words: string; count: number }[]
}

const MOST = 5
/** Less than this much more or less is chance. */
const NOTABLE = 5
const number = (value: number) => value.toLocaleString('en')
const times = (count: number) => (count === 1 ? 'once' : `${number(count)} times`)
const compared = ({ title, count, before }: Compared) => `“${title}” ${number(count)} (${number(before)} before)`

/** A summary in sentences, a line each: what was taken most, what rose and fell, and what did not work. */
export function summaryLines({ total, before, files, broken, missing, unfound }: SummaryFacts): string[] {
  const most = files.filter(({ count }) => count).slice(0, MOST)
  const by = (sign: 1 | -1) =>
    files
      .filter(({ count, before: earlier }) => sign * (count - earlier) >= NOTABLE)
      .sort((one, other) => sign * (other.count - other.before - (one.count - one.before)))
      .slice(0, MOST)
  const list = (words: string, parts: string[]) => (parts.length ? [`${words}: ${parts.slice(0, MOST).join(', ')}.`] : [])
  return [
    `${number(total)} ${total === 1 ? 'download' : 'downloads'}, ${number(before)} in the time before.`,
    ...list(
      'Most taken',
      most.map(({ title, count }) => `“${title}” ${number(count)}`),
    ),
    ...list('More than before', by(1).map(compared)),
    ...list('Less than before', by(-1).map(compared)),
    ...list(
      'Broke off on the way',
      broken.map(({ title, count }) => `“${title}” ${times(count)}`),
    ),
    ...list(
      'Asked for where nothing is',
      missing.filter(({ address }) => address).map(({ address, count }) => `${address} ${times(count)}`),
    ),
    ...list(
      'Looked for and not found',
      unfound.filter(({ words }) => words).map(({ words, count }) => `“${words}” ${times(count)}`),
    ),
  ]
}
