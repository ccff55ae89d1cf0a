import type { FileItem } from '../files/item'
import type { FileFilter } from '../files/query'
import { fold, wordsOf } from './fold'
import { isSlipOf } from './typing'

/** A file with what finding it needs, computed once. */
export interface Card {
  item: FileItem
  /** folded title, file name, handle, description and tags, a line each */
  key: string
  titleWords: string[]
  sortTitle: string
}

/** A file that was found, and by what. */
export interface Hit { item: FileItem, by: 'filter' | 'name' | 'slip' | 'inside' }

export function cardOf(item: FileItem): Card {
  const key = fold([item.title, item.fileName, item.handle, item.description, ...item.tags].join('\n'))
  // Numbers are padded, so that plain comparison puts 2 before 10.
  return { item, key, titleWords: wordsOf(item.title), sortTitle: fold(item.title).replace(/\d+/g, digits => digits.padStart(12, '0')) }
}

type Compare = (a: Card, b: Card) => number
const by = <Value extends string | number>(value: (card: Card) => Value): Compare =>
  (a, b) => value(a) < value(b) ? -1 : value(a) > value(b) ? 1 : 0
const thenBy = (...orders: Compare[]): Compare => (a, b) => {
  for (const order of orders) {
    const result = order(a, b)
    if (result) return result
  }
  return 0
}

const title = by(card => card.sortTitle)
const id = by(card => card.item.id)
const COLUMNS: Record<string, Compare> = {
  title: thenBy(title, id),
  type: thenBy(by(card => card.item.tag), title, id),
  size: thenBy(by(card => card.item.size), id),
  added: thenBy(by(card => card.item.created), id),
  changed: thenBy(by(card => card.item.changed), id),
  used: thenBy(by(card => card.item.uses), by(card => card.item.changed), id),
  downloads: thenBy(by(card => card.item.downloads), by(card => card.item.changed), id),
  own: thenBy(by(card => card.item.position), id),
}

/** `-size` is largest first. */
function orderOf(sort: string): Compare {
  const column = COLUMNS[sort.replace(/^-/, '')]!
  return sort.startsWith('-') ? (a, b) => column(b, a) : column
}

/** More changes than this at once, and sorting anew is quicker than putting each in its place. */
const FEW = 100

/** All files of a library, ready to be filtered, searched and sorted in memory. */
export class Cards {
  private readonly byId = new Map<string, Card>()
  private readonly sorted = new Map<string, Card[]>()
  private vocabulary: Set<string> | undefined

  get(fileId: string): FileItem | undefined {
    return this.byId.get(fileId)?.item
  }

  /** Every file, those in the bin too. */
  * items(): Iterable<FileItem> {
    for (const card of this.byId.values()) yield card.item
  }

  /** Puts files in, or puts what is known of them right, and takes others out. */
  update(items: FileItem[], gone: string[] = []): void {
    const cards = items.map(cardOf)
    const touched = new Set([...gone, ...items.map(item => item.id)])
    for (const fileId of gone) this.byId.delete(fileId)
    for (const card of cards) this.byId.set(card.item.id, card)
    this.vocabulary = undefined
    if (touched.size > FEW) {
      this.sorted.clear()
      return
    }
    for (const [sort, order] of this.sorted) {
      const compare = orderOf(sort)
      const kept = order.filter(card => !touched.has(card.item.id))
      for (const card of cards) kept.splice(placeFor(card, kept, compare), 0, card)
      this.sorted.set(sort, kept)
    }
  }

  private inOrder(sort: string): Card[] {
    let order = this.sorted.get(sort)
    if (!order) {
      order = [...this.byId.values()].sort(orderOf(sort))
      this.sorted.set(sort, order)
    }
    return order
  }

  private slipsOf(piece: string): Set<string> {
    this.vocabulary ??= new Set([...this.byId.values()].flatMap(card => card.titleWords))
    return new Set([...this.vocabulary].filter(word => isSlipOf(piece, word)))
  }

  /**
   * The files a filter lets through, in its order. Where words are asked for: first those that have every piece
   * in their name, description or tags (where none has, those whose title nearly has), then those in `inside`.
   *
   * @param folders identities of the folders to look in; null in it means the top of the library
   * @param inside SHA-256 of the contents in which the words stand
   */
  find(filter: FileFilter, folders?: ReadonlySet<string | null>, inside: ReadonlySet<string> = new Set()): Hit[] {
    const through = this.inOrder(filter.sort).filter(({ item }) => passes(item, filter, folders))
    const pieces = piecesOf(filter.q)
    if (!pieces.length) return through.map(({ item }) => ({ item, by: 'filter' }))

    let named = through.filter(({ key }) => pieces.every(piece => key.includes(piece)))
    const slipped = !named.length
    if (slipped) {
      const slips = pieces.map(piece => this.slipsOf(piece))
      named = through.filter(({ key, titleWords }) =>
        pieces.every((piece, index) => key.includes(piece) || titleWords.some(word => slips[index]!.has(word))))
    }
    const found = new Set(named)
    return [
      ...named.map(({ item }): Hit => ({ item, by: slipped ? 'slip' : 'name' })),
      ...through.filter(card => inside.has(card.item.sha256) && !found.has(card)).map(({ item }): Hit => ({ item, by: 'inside' })),
    ]
  }
}

/** What is looked for, folded, piece by piece; every piece has to be there. */
export const piecesOf = (q: string | undefined): string[] => fold(q ?? '').split(/\s+/).filter(Boolean)

function placeFor(card: Card, order: Card[], compare: Compare): number {
  let [low, high] = [0, order.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (compare(order[middle]!, card) < 0) low = middle + 1
    else high = middle
  }
  return low
}

function passes(item: FileItem, filter: FileFilter, folders: ReadonlySet<string | null> | undefined): boolean {
  if (filter.bin !== (item.deleted !== null)) return false
  if (folders && !folders.has(item.folder)) return false
  if (filter.type.length && !filter.type.some(type => type === item.family || type === item.mediaType)) return false
  if (filter.tag.length && !filter.tag.every(tag => item.tags.includes(tag))) return false
  if (filter.used && (filter.used === 'yes') !== item.uses > 0) return false
  if (filter.waits && !item.waits) return false
  if (filter.reading && item.reading !== filter.reading) return false
  if (filter.least !== undefined && item.size < filter.least) return false
  if (filter.most !== undefined && item.size > filter.most) return false
  return within(item.created, filter.addedFrom, filter.addedTo) && within(item.changed, filter.changedFrom, filter.changedTo)
}

/** Moments of ISO 8601 in UTC compare as text; a day as the end means all of that day. */
const within = (moment: string, from?: string, to?: string): boolean =>
  (from === undefined || moment >= from) && (to === undefined || moment.slice(0, to.length) <= to)
