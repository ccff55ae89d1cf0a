import type { FileItem } from '../files/item'
import type { FileFilter } from '../files/query'
import { Columns } from './columns'
import { fold, wordsOf } from './fold'
import { NameIndex } from './names'
import { Orders } from './orders'
import { Vocabulary } from './vocabulary'

/** By what a file was found. */
export type FoundBy = 'filter' | 'name' | 'slip' | 'inside'

/** Files that were found, in their order. */
export interface Hits {
  total: number
  /** how many, the first ones, were found by their name, description or tags, or by filters alone */
  named: number
  slice: (from: number, to: number) => { item: FileItem, by: FoundBy }[]
}

/** What is looked for, folded, piece by piece; every piece has to be there. */
export const piecesOf = (q: string | undefined): string[] => fold(q ?? '').split(/\s+/).filter(Boolean).slice(0, 20)

const keyOf = (item: FileItem) => fold([item.title, item.fileName, item.handle, item.description, ...item.tags].join('\n'))

/** All files of a library in memory, ready to be filtered, searched and sorted. */
export class Cards {
  private readonly slots = new Map<string, number>()
  private readonly free: number[] = []
  private readonly itemsBySlot: (FileItem | undefined)[] = []
  private readonly columns = new Columns(this.itemsBySlot)
  private readonly orders = new Orders(this.itemsBySlot)
  private readonly names = new NameIndex()
  private readonly vocabulary = new Vocabulary()

  get(fileId: string): FileItem | undefined {
    const slot = this.slots.get(fileId)
    return slot === undefined ? undefined : this.itemsBySlot[slot]
  }

  /** Every file, those in the bin too. */
  * items(): Iterable<FileItem> {
    for (const item of this.itemsBySlot) if (item) yield item
  }

  private put(slot: number, item: FileItem | undefined): void {
    const before = this.itemsBySlot[slot]
    this.itemsBySlot[slot] = item
    this.columns.set(slot, item)
    const key = item ? keyOf(item) : ''
    if (!before || !item || key !== keyOf(before)) this.names.set(slot, key)
    if (before?.title !== item?.title) this.vocabulary.set(slot, item ? wordsOf(item.title) : [])
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

  /** Slots with every piece in their name; where none has, those whose title nearly has. */
  private named(through: number[], pieces: string[]): { slots: number[], slipped: boolean } {
    const marks = new Uint8Array(this.itemsBySlot.length)
    this.names.mark(pieces, marks)
    const exact = through.filter(slot => marks[slot] === pieces.length)
    if (exact.length) return { slots: exact, slipped: false }
    marks.fill(0)
    pieces.forEach((piece, found) => {
      const mark = (slot: number) => {
        if (marks[slot] === found) marks[slot] = found + 1
      }
      this.names.markPiece(piece, mark)
      this.vocabulary.markSlips(piece, mark)
    })
    return { slots: through.filter(slot => marks[slot] === pieces.length), slipped: true }
  }

  /**
   * The files a filter lets through, in its order. Where words are asked for: first those that have every piece
   * in their name, description or tags (where none has, those whose title nearly has), then those in `inside`.
   *
   * @param folders identities of the folders to look in; null in it means the top of the library
   * @param inside SHA-256 of the contents in which the words stand
   */
  find(filter: FileFilter, folders?: ReadonlySet<string | null>, inside: ReadonlySet<string> = new Set()): Hits {
    const downwards = filter.sort.startsWith('-')
    const order = this.orders.upBy(filter.sort.replace(/^-/, ''))
    const through = this.columns.through(filter, order, folders)
    if (downwards) through.reverse()
    const pieces = piecesOf(filter.q)
    if (!pieces.length) return this.hits(through, [], 'filter')
    const { slots, slipped } = this.named(through, pieces)
    const found = new Set(slots)
    const within = inside.size ? through.filter(slot => !found.has(slot) && inside.has(this.itemsBySlot[slot]!.sha256)) : []
    return this.hits(slots, within, slipped ? 'slip' : 'name')
  }

  private hits(named: number[], inside: number[], by: FoundBy): Hits {
    const hit = (slot: number, index: number) => ({ item: this.itemsBySlot[slot]!, by: index < named.length ? by : 'inside' as const })
    return {
      total: named.length + inside.length,
      named: named.length,
      slice: (from, to) => [...named.slice(from, to), ...inside.slice(Math.max(0, from - named.length), Math.max(0, to - named.length))].map((slot, offset) => hit(slot, from + offset)),
    }
  }
}
