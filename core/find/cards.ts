import type { FileItem } from '../files/fileItem'
import { takenDays, type FileFilter } from '../files/query'
import { Columns } from './columns'
import { fold, wordsOf } from './fold'
import { NameIndex } from './nameIndex'
import { Orders } from './orders'
import { Vocabulary } from './vocabulary'

/** By what a file was found. */
export type FoundBy = 'filter' | 'name' | 'slip' | 'inside'

/** Files that were found, in their order. */
export interface Hits {
  total: number
  /** how many, the first ones, were found by their name, description or tags, or by filters alone */
  named: number
  slice: (from: number, to: number) => { item: FileItem; by: FoundBy }[]
}

/** Files that are left when all filters but the words have been asked. */
export interface Narrowed {
  /** their SHA-256; undefined where they are more than `most` */
  contents: (most: number) => string[] | undefined
  /**
   * First those that have every piece in their name, description or tags, then those in `inside`; where there is
   * none of either, those whose title nearly has them.
   *
   * @param inside SHA-256 of the contents in which the words stand
   */
  find: (q: string | undefined, inside?: ReadonlySet<string>) => Hits
}

/** What is looked for, folded, piece by piece; every piece has to be there. */
export const piecesOf = (q: string | undefined): string[] =>
  fold(q ?? '')
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, 20)

/** What a file is found by: its own names, and what it calls itself, such as the title of a recording. */
const keyOf = ({ title, fileName, handle, description, tags, facts }: FileItem) =>
  fold([title, fileName, handle, description, ...tags, facts.documentTitle ?? ''].join('\n'))

/** All files of a library in memory, ready to be filtered, searched and sorted. */
export class Cards {
  private readonly slots = new Map<string, number>()
  private readonly free: number[] = []
  private readonly itemsBySlot: (FileItem | undefined)[] = []
  private readonly columns = new Columns(this.itemsBySlot)
  private readonly orders = new Orders(this.itemsBySlot)
  private readonly names = new NameIndex()
  private readonly vocabulary = new Vocabulary()

  private put(slot: number, item: FileItem | undefined): void {
    const before = this.itemsBySlot[slot]
    this.itemsBySlot[slot] = item
    this.columns.set(slot, item)
    const key = item ? keyOf(item) : ''
    if (!before || !item || key !== keyOf(before)) this.names.set(slot, key)
    if (before?.title !== item?.title) this.vocabulary.set(slot, item ? wordsOf(item.title) : [])
  }

  /** Every file, those in the bin too. */
  *items(): Iterable<FileItem> {
    for (const item of this.itemsBySlot) if (item) yield item
  }

  get(id: string): FileItem | undefined {
    const slot = this.slots.get(id)
    return slot === undefined ? undefined : this.itemsBySlot[slot]
  }

  /** Puts files in, or puts what is known of them right, and takes others out. */
  update(items: FileItem[], gone: string[] = []): void {
    const touched: number[] = []
    for (const fileId of gone) {
      const slot = this.slots.get(fileId)
      if (slot === undefined) continue
      this.slots.delete(fileId)
      this.put(slot, undefined)
      this.free.push(slot)
      touched.push(slot)
    }
    for (const item of items) {
      const slot = this.slots.get(item.id) ?? this.free.pop() ?? this.itemsBySlot.length
      this.slots.set(item.id, slot)
      this.put(slot, item)
      touched.push(slot)
    }
    this.orders.update([...new Set(touched)])
  }

  /** Sorts by a column, so that the first who asks for it does not wait. */
  sortBy(column: string): void {
    this.orders.upBy(column)
  }

  /** How many of the pieces stand in each name, or, where no name has all and slips may be forgiven, nearly stand in its title. */
  private marksOf(through: number[], pieces: string[], forgiving: boolean): { marks: Uint8Array; slipped: boolean } {
    const marks = new Uint8Array(this.itemsBySlot.length)
    this.names.mark(pieces, marks)
    if (!forgiving || through.some(slot => marks[slot] === pieces.length)) return { marks, slipped: false }
    marks.fill(0)
    pieces.forEach((piece, found) => {
      const mark = (slot: number) => {
        if (marks[slot] === found) marks[slot] = found + 1
      }
      this.names.markPiece(piece, mark)
      this.vocabulary.markSlips(piece, mark)
    })
    return { marks, slipped: true }
  }

  /**
   * The files a filter lets through, its words left aside, in its order.
   *
   * @param passes asked of each of them besides
   * @param taken downloads by identity, where the order is by those of some days
   */
  narrow(
    filter: FileFilter,
    folders?: ReadonlySet<string | null>,
    passes?: (item: FileItem) => boolean,
    taken?: ReadonlyMap<string, number>,
  ): Narrowed {
    const order = this.orders.upBy(takenDays(filter.sort) ? 'title' : filter.sort.replace(/^-/, ''))
    const through = this.columns.through(filter, order, folders)
    const slots = passes ? through.filter(slot => passes(this.itemsBySlot[slot]!)) : through
    const descending = filter.sort.startsWith('-')
    if (taken) this.rank(slots, taken, descending ? -1 : 1)
    else if (descending) slots.reverse()
    return {
      contents: most => (slots.length > most ? undefined : slots.map(slot => this.itemsBySlot[slot]!.sha256)),
      find: (q, inside) => this.find(slots, piecesOf(q), inside ?? new Set()),
    }
  }

  /** Files taken alike stay in the order they stand in. */
  private rank(slots: number[], taken: ReadonlyMap<string, number>, way: 1 | -1): void {
    const countOf = (slot: number) => taken.get(this.itemsBySlot[slot]!.id) ?? 0
    slots.sort((one, other) => way * (countOf(one) - countOf(other)))
  }

  private find(slots: number[], pieces: string[], inside: ReadonlySet<string>): Hits {
    if (!pieces.length) return this.hits(slots, [], 'filter')
    const { marks, slipped } = this.marksOf(slots, pieces, inside.size === 0)
    const isNamed = (slot: number) => marks[slot] === pieces.length
    const named = slots.filter(isNamed)
    const within = inside.size ? this.columns.holding(slots, inside).filter(slot => !isNamed(slot)) : []
    return this.hits(named, within, slipped ? 'slip' : 'name')
  }

  private hits(named: number[], inside: number[], by: FoundBy): Hits {
    const hit = (slot: number, index: number) => ({ item: this.itemsBySlot[slot]!, by: index < named.length ? by : ('inside' as const) })
    return {
      total: named.length + inside.length,
      named: named.length,
      slice: (from, to) =>
        [...named.slice(from, to), ...inside.slice(Math.max(0, from - named.length), Math.max(0, to - named.length))].map((slot, offset) =>
          hit(slot, from + offset),
        ),
    }
  }
}
