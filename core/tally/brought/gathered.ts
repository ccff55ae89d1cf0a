import type { ImportFormat, LeftOut } from './brought'

/** Downloads of a file that are brought in: one, or as many as a day had. */
export interface BroughtRow {
  file: string
  /** milliseconds since 1970, or a day of the site's */
  at: number | string
  count: number
  bytes: number
  told: { referrer: string; referrerPath: string; campaign: string; country: string; device: string; browser: string; system: string }
}

/** What was in a file of numbers. */
export interface BroughtSums {
  format: ImportFormat
  lines: number
  downloads: number
  /** milliseconds since 1970, or days */
  first: number | string | null
  last: number | string | null
  files: [file: string, count: number][]
  left: Partial<Record<LeftOut, number>>
  others: [address: string, count: number][]
}

/** Rows that are handed on together. */
const AT_ONCE = 500
/** Addresses of nothing that are told apart, and told. */
const MOST_OTHERS = 20_000
const TOLD_OTHERS = 20

/** Adds up what is found, and hands rows on as they come. */
export class Gathered {
  lines = 0
  private downloads = 0
  private first: number | string | null = null
  private last: number | string | null = null
  private readonly files = new Map<string, number>()
  private readonly left: Partial<Record<LeftOut, number>> = {}
  private readonly others = new Map<string, number>()
  private rows: BroughtRow[] = []

  constructor(private readonly give: (rows: BroughtRow[]) => Promise<void>) {}

  leave(why: LeftOut): void {
    this.left[why] = (this.left[why] ?? 0) + 1
  }

  leaveOther(address: string): void {
    this.leave('other')
    if (this.others.has(address) || this.others.size < MOST_OTHERS) this.others.set(address, (this.others.get(address) ?? 0) + 1)
  }

  async take(row: BroughtRow): Promise<void> {
    this.downloads += row.count
    this.files.set(row.file, (this.files.get(row.file) ?? 0) + row.count)
    if (this.first === null || row.at < this.first) this.first = row.at
    if (this.last === null || row.at > this.last) this.last = row.at
    this.rows.push(row)
    if (this.rows.length >= AT_ONCE) await this.flush()
  }

  async flush(): Promise<void> {
    const rows = this.rows
    this.rows = []
    if (rows.length) await this.give(rows)
  }

  sums(format: ImportFormat): BroughtSums {
    const most = (counts: Map<string, number>) => [...counts].sort(([a, one], [b, other]) => other - one || (a < b ? -1 : 1))
    const { lines, downloads, first, last, left } = this
    return { format, lines, downloads, first, last, left, files: most(this.files), others: most(this.others).slice(0, TOLD_OTHERS) }
  }
}
