import { DIMENSIONS, type Derived, type Dimension, type Listed } from './particulars'
import { hourOfWeek, HOURS_OF_WEEK, type Ahead } from './week'

/** A completed download as sums are made of it, or several of the same second that differ in nothing. */
export interface Counted {
  id: number
  /** seconds since 1970 */
  at: number
  count: number
  bytes: number
  /** what it was by each dimension, in the order of {@link DIMENSIONS} */
  keys: readonly string[]
}

export type Narrowing = Partial<Record<Listed, string>>

/** What is not written down with downloads, as it is now, by the identity of their file; no file, no key. */
export type DerivedKeys = Partial<Record<Derived, Record<string, string>>>

/** A stretch of time, in seconds since 1970; its end is outside. */
export interface Stretch {
  from: number
  to: number
}

/** Text that is looked for in what downloads are told by, with the identities it was found for elsewhere. */
export interface Wanted {
  /** in small letters */
  text: string
  ids: Partial<Record<Dimension, readonly string[]>>
}

/** Which of all downloads are asked about. */
export interface Among {
  narrow: Narrowing
  /** of each that is narrowed to */
  derived: DerivedKeys
  wanted?: Wanted
}

/** What is told by words of its own, and found by any part of them. */
export const FOUND_BY_WORDS = ['campaign', 'referrer'] as const satisfies readonly Dimension[]

/** What is asked of all downloads. */
export interface SumsQuestion extends Stretch {
  /** the stretch that it is held against */
  before: Stretch | null
  narrow: Narrowing
  /** of each that is narrowed to, listed or told apart by */
  derived: DerivedKeys
  /** where bars begin, ascending; the last one ends with the stretch */
  bars: readonly number[]
  /** how far the site's time zone is ahead, through the stretch */
  ahead: readonly Ahead[]
  /** by what bars are told apart; null for not at all */
  stack: Listed | null
  lists: readonly Listed[]
  /** rows that are told of each list, and parts of a bar */
  most: number
  mostStacked: number
}

export interface Sum {
  count: number
  bytes: number
}
export interface ListRow extends Sum {
  key: string
  /** in the stretch before; null where there is none */
  before: number | null
  /** in each bar */
  line: number[]
}
export interface Sums {
  total: Sum
  before: Sum | null
  bars: number[]
  /** in each hour of the week, from Monday on */
  week: number[]
  /** the largest first; what is left of a bar is the rest's */
  stacks: { key: string; bars: number[] }[]
  lists: { dimension: Listed; keys: number; rows: ListRow[] }[]
}

/** What all rows are by one dimension: of each the number of its key. */
interface Coded {
  codes: Uint32Array
  readonly keys: readonly string[]
  codeOf: (key: string) => number | undefined
}

/** Room for this many rows at first. */
const FIRST = 1024
/** Seconds by which rows may lie before those that came earlier, as where several write: they are told in their order all the same. */
const NEARLY = 3600

class Column implements Coded {
  codes = new Uint32Array(FIRST)
  readonly keys: string[] = []
  private readonly index = new Map<string, number>()

  codeOf = (key: string): number | undefined => this.index.get(key)

  put(row: number, key: string): void {
    let code = this.index.get(key)
    if (code === undefined) {
      code = this.keys.push(key) - 1
      this.index.set(key, code)
    }
    this.codes[row] = code
  }
}

function grown<Numbers extends Uint32Array | Float64Array>(old: Numbers, size: number): Numbers {
  const larger = new (old.constructor as new (size: number) => Numbers)(size)
  larger.set(old)
  return larger
}

/** The largest of some codes by their counts, those without any left out. */
function largest(counts: Float64Array, most: number, keys: readonly string[]): number[] {
  const there: number[] = []
  for (let code = 0; code < counts.length; code++) if (counts[code]) there.push(code)
  return there.sort((a, b) => counts[b]! - counts[a]! || (keys[a]! < keys[b]! ? -1 : 1)).slice(0, most)
}

/**
 * All completed downloads as columns of numbers, so that a million of them are gone through at each question: whatever they are narrowed
 * to, sums come from the rows themselves.
 */
export class Columns {
  private length = 0
  private known = 0
  private inOrder = true
  private ids = new Float64Array(FIRST)
  private at = new Uint32Array(FIRST)
  private counts = new Uint32Array(FIRST)
  private bytes = new Float64Array(FIRST)
  private readonly columns = Object.fromEntries(DIMENSIONS.map(dimension => [dimension, new Column()])) as Record<Dimension, Column>

  /** Identity of the newest; 0 while there is none. */
  get newest(): number {
    return this.known
  }

  /** Takes rows in, in the order of their identities; those that are known already are left out. */
  add(rows: readonly Counted[]): void {
    for (const { id, at, count, bytes, keys } of rows) {
      if (id <= this.known) continue
      this.known = id
      if (this.length && at + NEARLY < this.at[this.length - 1]!) this.inOrder = false
      const row = this.length++
      if (row === this.ids.length) this.grow()
      this.ids[row] = id
      this.at[row] = at
      this.counts[row] = count
      this.bytes[row] = bytes
      DIMENSIONS.forEach((dimension, place) => this.columns[dimension].put(row, keys[place]!))
    }
  }

  /** Puts rows in order of time, once what came before Trough was brought in after what it counted itself. */
  private settle(): void {
    if (this.inOrder) return
    const order = Uint32Array.from({ length: this.length }, (_, row) => row).sort(
      (a, b) => this.at[a]! - this.at[b]! || this.ids[a]! - this.ids[b]!,
    )
    const ordered = <Numbers extends Uint32Array | Float64Array>(old: Numbers): Numbers => {
      const sorted = new (old.constructor as new (size: number) => Numbers)(old.length)
      for (let row = 0; row < order.length; row++) sorted[row] = old[order[row]!]!
      return sorted
    }
    this.ids = ordered(this.ids)
    this.at = ordered(this.at)
    this.counts = ordered(this.counts)
    this.bytes = ordered(this.bytes)
    for (const column of Object.values(this.columns)) column.codes = ordered(column.codes)
    this.inOrder = true
  }

  private isDerived = (dimension: Listed): dimension is Derived => !(dimension in this.columns)

  /** What rows are by a dimension, be it one that is told of their files. */
  private codedBy(dimension: Listed, derived: DerivedKeys): Coded {
    if (!this.isDerived(dimension)) return this.columns[dimension]
    const keyOf = derived[dimension] ?? {}
    const keys = [...new Set(['', ...Object.values(keyOf)])]
    const index = new Map(keys.map((key, code) => [key, code]))
    const ofFile = Uint32Array.from(this.columns.file.keys, file => index.get(keyOf[file] ?? '')!)
    const { codes: files } = this.columns.file
    const codes = new Uint32Array(this.length)
    for (let row = 0; row < this.length; row++) codes[row] = ofFile[files[row]!]!
    return { codes, keys, codeOf: key => index.get(key) }
  }

  private grow(): void {
    const size = this.ids.length * 2
    this.ids = grown(this.ids, size)
    this.at = grown(this.at, size)
    this.counts = grown(this.counts, size)
    this.bytes = grown(this.bytes, size)
    for (const column of Object.values(this.columns)) column.codes = grown(column.codes, size)
  }

  /** Says whether a row has what is looked for. */
  private seeker({ text, ids }: Wanted): (row: number) => boolean {
    const flagged = DIMENSIONS.flatMap(dimension => {
      const { codes, keys } = this.columns[dimension]
      const known = new Set(ids[dimension])
      const byWords = (FOUND_BY_WORDS as readonly Dimension[]).includes(dimension)
      const flags = Uint8Array.from(keys, key => (known.has(key) || (byWords && key.toLowerCase().includes(text)) ? 1 : 0))
      return flags.includes(1) ? [{ codes, flags }] : []
    })
    return row => flagged.some(({ codes, flags }) => flags[codes[row]!] === 1)
  }

  /** Rows of a stretch that are narrowed to, in order of coming. */
  private rowsOf({ from, to }: Stretch, { narrow, derived, wanted: sought }: Among): Uint32Array {
    this.settle()
    const isSought = sought && this.seeker(sought)
    const wanted: [Uint32Array, number][] = []
    for (const [dimension, key] of Object.entries(narrow)) {
      const column = this.codedBy(dimension as Listed, derived)
      const code = column.codeOf(key)
      if (code === undefined) return new Uint32Array(0)
      wanted.push([column.codes, code])
    }
    const found = new Uint32Array(this.length)
    let many = 0
    next: for (let row = 0; row < this.length; row++) {
      const at = this.at[row]!
      if (at < from || at >= to) continue
      for (const [codes, code] of wanted) if (codes[row] !== code) continue next
      if (isSought && !isSought(row)) continue
      found[many++] = row
    }
    return found.subarray(0, many)
  }

  private sumOf(rows: Uint32Array): Sum {
    const sum = { count: 0, bytes: 0 }
    for (let index = 0; index < rows.length; index++) {
      const row = rows[index]!
      sum.count += this.counts[row]!
      sum.bytes += this.bytes[row]!
    }
    return sum
  }

  private countsBy({ codes, keys }: Coded, rows: Uint32Array, of: Uint32Array | Float64Array = this.counts): Float64Array {
    const counts = new Float64Array(keys.length)
    for (let index = 0; index < rows.length; index++) {
      const row = rows[index]!
      counts[codes[row]!]! += of[row]!
    }
    return counts
  }

  /** The bar that each row falls into. */
  private barsOf(rows: Uint32Array, starts: readonly number[]): Uint32Array {
    const bars = new Uint32Array(rows.length)
    // Rows come nearly in order of time: most fall into the bar of the one before.
    let bar = 0
    for (let index = 0; index < rows.length; index++) {
      const at = this.at[rows[index]!]!
      while (bar + 1 < starts.length && at >= starts[bar + 1]!) bar++
      while (bar > 0 && at < starts[bar]!) bar--
      bars[index] = bar
    }
    return bars
  }

  private weekOf(rows: Uint32Array, ahead: readonly Ahead[]): number[] {
    const week = new Array<number>(HOURS_OF_WEEK).fill(0)
    const parts = this.barsOf(
      rows,
      ahead.map(({ from }) => from),
    )
    for (let index = 0; index < rows.length; index++) {
      const row = rows[index]!
      week[hourOfWeek(this.at[row]!, ahead[parts[index]!]!.seconds)]! += this.counts[row]!
    }
    return week
  }

  /** How many fall into each bar, for each of some codes. */
  private linesOf({ codes, keys }: Coded, chosen: readonly number[], rows: Uint32Array, bars: Uint32Array, many: number): number[][] {
    const lines = chosen.map(() => new Array<number>(many).fill(0))
    const place = new Int32Array(keys.length).fill(-1)
    chosen.forEach((code, index) => (place[code] = index))
    for (let index = 0; index < rows.length; index++) {
      const row = rows[index]!
      const chosenAs = place[codes[row]!]!
      if (chosenAs >= 0) lines[chosenAs]![bars[index]!]! += this.counts[row]!
    }
    return lines
  }

  /** Everything a board says. */
  sums({ from, to, before, narrow, derived, bars: starts, ahead, stack, lists, most, mostStacked }: SumsQuestion): Sums {
    const rows = this.rowsOf({ from, to }, { narrow, derived })
    const rowsBefore = before && this.rowsOf(before, { narrow, derived })
    const bars = this.barsOf(rows, starts)
    const inBars = new Array<number>(starts.length).fill(0)
    for (let index = 0; index < rows.length; index++) inBars[bars[index]!]! += this.counts[rows[index]!]!
    const chosenOf = (column: Coded, counts: Float64Array, many: number) => {
      const chosen = largest(counts, many, column.keys)
      return { chosen, lines: this.linesOf(column, chosen, rows, bars, starts.length) }
    }
    const list = (dimension: Listed) => {
      const column = this.codedBy(dimension, derived)
      const [counts, bytes] = [this.countsBy(column, rows), this.countsBy(column, rows, this.bytes)]
      const earlier = rowsBefore && this.countsBy(column, rowsBefore)
      const { chosen, lines } = chosenOf(column, counts, most)
      return {
        dimension,
        keys: counts.reduce((sum, count) => sum + (count ? 1 : 0), 0),
        rows: chosen.map((code, index) => ({
          key: column.keys[code]!,
          count: counts[code]!,
          bytes: bytes[code]!,
          before: earlier && earlier[code]!,
          line: lines[index]!,
        })),
      }
    }
    const stacked = () => {
      const column = this.codedBy(stack!, derived)
      const { chosen, lines } = chosenOf(column, this.countsBy(column, rows), mostStacked)
      return chosen.map((code, index) => ({ key: column.keys[code]!, bars: lines[index]! }))
    }
    return {
      total: this.sumOf(rows),
      before: rowsBefore && this.sumOf(rowsBefore),
      bars: inBars,
      week: this.weekOf(rows, ahead),
      stacks: stack === null ? [] : stacked(),
      lists: lists.map(list),
    }
  }

  /** Identities of rows of a stretch, the newest first, and how many there are. */
  find(stretch: Stretch, among: Among, from: number, many: number): { ids: number[]; total: number } {
    const rows = this.rowsOf(stretch, among)
    const end = Math.max(0, rows.length - from)
    const ids = Array.from(rows.subarray(Math.max(0, end - many), end), row => this.ids[row]!)
    return { ids: ids.reverse(), total: rows.length }
  }

  /** When the first was; undefined while there is none. */
  first(among: Among): number | undefined {
    const rows = this.rowsOf({ from: 0, to: Infinity }, among)
    let first: number | undefined
    for (let index = 0; index < rows.length; index++) {
      const at = this.at[rows[index]!]!
      if (first === undefined || at < first) first = at
    }
    return first
  }

  /** When each key of a dimension was told first, for those that were within a stretch, in seconds since 1970. */
  beginnings(dimension: Dimension, { from, to }: Stretch): { key: string; at: number }[] {
    const { codes, keys } = this.columns[dimension]
    const firsts = new Float64Array(keys.length).fill(Infinity)
    for (let row = 0; row < this.length; row++) {
      const code = codes[row]!
      if (this.at[row]! < firsts[code]!) firsts[code] = this.at[row]!
    }
    return keys.flatMap((key, code) => (key && firsts[code]! >= from && firsts[code]! < to ? [{ key, at: firsts[code]! }] : []))
  }
}
