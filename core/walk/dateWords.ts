import { dateIn } from '../files/nameAdvice'
import { monthLike, monthOf } from '../language/months'

/** A date in the way another one is written: its precision, its order, the length of its month's name. */
function writtenLike(pattern: string, iso: string): string {
  const [year, month, day] = iso.split('-') as [string, string?, string?]
  const name = /\p{L}+/u.exec(pattern)?.[0]
  const named = name === undefined ? undefined : monthOf(name)
  if (name !== undefined && named) {
    const other = monthLike(named, Number(month))
    return pattern
      .replace(name, name === name.toLowerCase() ? other.toLowerCase() : other.replace(/^\p{L}/u, first => first.toUpperCase()))
      .replace(/\d{4}/, year)
  }
  const numbers = pattern.split(/\D+/)
  const mark = /\D/.exec(pattern)?.[0] ?? (numbers[0]!.length > 4 ? '' : '-')
  const parts = numbers[0]!.length >= 4 ? [year, month, day] : [day, month, year]
  const precision = numbers[0]!.length > 4 ? (numbers[0]!.length - 2) / 2 : numbers.length
  return (numbers[0]!.length >= 4 ? parts.slice(0, precision) : parts).join(mark)
}

/** What a text says that names another day, month or year than a date, with the text mended; undefined where that cannot be compared. */
function otherDateIn(text: string, dated: string): { named: string; iso: string; wanted: string; mended: string } | undefined {
  const found = dateIn(text)
  if (!found?.iso || found.iso.length > dated.length) return undefined
  const wanted = dated.slice(0, found.iso.length)
  if (found.iso === wanted) return undefined
  return { named: found.text, iso: found.iso, wanted, mended: text.replace(found.text, writtenLike(found.text, wanted)) }
}

/** A text that names the date of one thing, with the date of another in its place; undefined where it names another date, or none. */
export function redated(text: string, from: string, to: string): string | undefined {
  const other = otherDateIn(text, to)
  return other && from.startsWith(other.iso) ? other.mended : undefined
}

/**
 * What a text says that names an earlier day, month or year than a date, with the text mended; undefined where it names
 * none, the same, a later one, or one that cannot be compared.
 *
 * @param dated ISO 8601, to the day, month or year
 */
export function outdatedIn(text: string, dated: string): { named: string; mended: string } | undefined {
  const other = otherDateIn(text, dated)
  return other && other.iso < other.wanted ? { named: other.named, mended: other.mended } : undefined
}
