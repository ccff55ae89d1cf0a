import type { FileItem } from '../files/fileItem'
import { fold } from './fold'

/** More changes than this at once, and sorting anew is quicker than putting each in its place. */
const FEW = 100

type Compare = (a: number, b: number) => number
type Value = (item: FileItem) => string | number

/** Numbers are padded, so that plain comparison puts 2 before 10. */
const titleKey = (title: string) => fold(title).replace(/\d+/g, digits => digits.padStart(12, '0'))

/** How much of it there is: pages, seconds, sheets or files inside, whichever its kind has. */
const extentOf = ({ facts }: FileItem) => facts.pages ?? facts.seconds ?? facts.sheets ?? facts.entries ?? facts.width ?? 0

// What each column is sorted by; where it is equal, by the next, and at last by identity.
const COLUMNS: Record<string, Value[]> = {
  title: [item => titleKey(item.title)],
  type: [item => item.tag, item => titleKey(item.title)],
  size: [item => item.size],
  added: [item => item.created],
  changed: [item => item.changed],
  used: [item => item.uses, item => item.changed],
  downloads: [item => item.downloads, item => item.changed],
  pages: [extentOf, item => item.changed],
  tags: [item => item.tags.map(fold).sort().join('\n'), item => titleKey(item.title)],
  own: [item => item.position],
}

/** Keeps lists of slots sorted by each column that was asked for. */
export class Orders {
  private readonly keys = new Map<string, (string | number)[][]>()
  private readonly sorted = new Map<string, number[]>()

  constructor(private readonly items: (FileItem | undefined)[]) {}

  private keysOf(column: string): (string | number)[][] {
    let keys = this.keys.get(column)
    if (!keys) {
      const values = [...COLUMNS[column]!, (item: FileItem) => item.id]
      keys = values.map(value => this.items.map(item => (item ? value(item) : '')))
      this.keys.set(column, keys)
    }
    return keys
  }

  private compare(column: string): Compare {
    const keys = this.keysOf(column)
    return (a, b) => {
      for (const key of keys) {
        const [left, right] = [key[a]!, key[b]!]
        if (left !== right) return left < right ? -1 : 1
      }
      return 0
    }
  }

  /** Slots in the order of a column, upwards. */
  upBy(column: string): number[] {
    let order = this.sorted.get(column)
    if (!order) {
      order = []
      this.items.forEach((item, slot) => item && order!.push(slot))
      order.sort(this.compare(column))
      this.sorted.set(column, order)
    }
    return order
  }

  /** Puts changed slots in their place and takes emptied ones out. */
  update(slots: number[]): void {
    if (slots.length > FEW) {
      this.keys.clear()
      this.sorted.clear()
      return
    }
    const touched = new Set(slots)
    for (const [column, order] of this.sorted) {
      const keys = this.keysOf(column)
      const values = [...COLUMNS[column]!, (item: FileItem) => item.id]
      for (const slot of slots) keys.forEach((key, index) => (key[slot] = this.items[slot] ? values[index]!(this.items[slot]!) : ''))
      const kept = order.filter(slot => !touched.has(slot))
      const compare = this.compare(column)
      for (const slot of slots) if (this.items[slot]) kept.splice(placeFor(slot, kept, compare), 0, slot)
      this.sorted.set(column, kept)
    }
    for (const column of this.keys.keys()) if (!this.sorted.has(column)) this.keys.delete(column)
  }
}

function placeFor(slot: number, order: number[], compare: Compare): number {
  let [low, high] = [0, order.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (compare(order[middle]!, slot) < 0) low = middle + 1
    else high = middle
  }
  return low
}
