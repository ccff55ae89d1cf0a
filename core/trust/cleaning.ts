import type { Cleaning } from './trustReports'

const DAY = 24 * 60 * 60 * 1000

/** An edition as the rules look at it. */
export interface EditionFacts {
  file: string
  number: number
  /** milliseconds since the epoch */
  created: number
  /** it is the one visitors get */
  current: boolean
  /** it is reachable by its number */
  pinned: boolean
  /** the number of the one visitors get */
  currentNumber: number
}

/**
 * The editions that rules clean away: earlier ones behind the newest few of each file, once they are old
 * enough. The current one, those newer than it (they wait) and those made public by number always stay.
 */
export function outdatedEditions(
  editions: EditionFacts[],
  { keepEditions, editionDays }: Pick<Cleaning, 'keepEditions' | 'editionDays'>,
  now: number,
): EditionFacts[] {
  if (keepEditions === null) return []
  const kept = new Map<string, number>()
  return editions
    .toSorted((a, b) => b.number - a.number)
    .filter(edition => {
      if (edition.current || edition.number > edition.currentNumber) return false
      const before = kept.get(edition.file) ?? 0
      kept.set(edition.file, before + 1)
      return before >= keepEditions && !edition.pinned && now - edition.created > editionDays * DAY
    })
}
