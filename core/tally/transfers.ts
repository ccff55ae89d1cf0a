import type { ByteRange } from '../http/range'
import { NO_PARTICULARS, type Course, type Particulars } from './particulars'
import { addInterval, coversAll } from './intervals'

/** What was delivered in answer to one request. */
export interface Delivery {
  /** tells one visitor from another without saying who it is; asked only where ranges are to be joined */
  visitor: () => string
  file: string
  edition: number
  /** the button or link that was followed, where known */
  placement: string | undefined
  /** tells one state of the bytes from another: ranges of different ones make no whole */
  etag: string
  /** bytes of the whole */
  size: number
  /** the stretches that left this machine */
  delivered: ByteRange[]
  /** the stretch that was under way when the client left: some of it may have arrived */
  unsure?: ByteRange
  /** milliseconds since the epoch */
  at: number
  /** milliseconds until the last of it had left */
  took?: number
  /** where it came from and what with */
  told?: Particulars
}

/** A completed download, as it is recorded. */
export interface Download {
  file: string
  edition: number
  placement: string | undefined
  at: number
  /** bytes that left this machine for it, repeats included */
  bytes: number
  course: Course
  /** milliseconds from the first request until the last byte had left; 0 where that is not known */
  took: number
  told: Particulars
}

/** What one visitor has of one state of a file, until it is all of it. */
export interface Transfer {
  have: ByteRange[]
  unsure: ByteRange | undefined
  bytes: number
  placement: string | undefined
  /** when it was asked for first; one that an earlier version of Trough wrote down has none */
  began?: number
  last: number
  /** bytes of the whole; one that an earlier version of Trough wrote down has none */
  size?: number
  /** as its first request said it; one that an earlier version of Trough wrote down has none */
  told?: Particulars
}

/** A download that was given up on the way. */
export interface Broken {
  file: string
  /** bytes that were had, each once */
  have: number
  size: number
  /** milliseconds since the epoch */
  last: number
}

/** A transfer that stands still this long is given up; a resumption after it starts a new one. */
export const FORGOTTEN_AFTER = 24 * 60 * 60 * 1000
const MOST_OPEN = 20_000

/**
 * Joins the ranges of one transfer into one download: a download is complete when one visitor has been
 * sent every byte of one edition, however many requests that took and in whatever order.
 */
export class Transfers {
  private open: Map<string, Transfer>
  private touched = new Set<string>()
  private broken: Broken[] = []

  /** @param open those that an earlier process had not seen the end of, the oldest first */
  constructor(open: Iterable<[string, Transfer]> = []) {
    this.open = new Map(open)
  }

  /** What changed since it was asked last: transfers as they are now, and those that have ended. */
  changes(): { open: [string, Transfer][]; ended: string[] } {
    const touched = [...this.touched]
    this.touched.clear()
    return {
      open: touched.flatMap(key => (this.open.has(key) ? [[key, this.open.get(key)!] as [string, Transfer]] : [])),
      ended: touched.filter(key => !this.open.has(key)),
    }
  }

  /** Those that were given up since it was asked last. */
  takeBroken(): Broken[] {
    const broken = this.broken
    this.broken = []
    return broken
  }

  /** Takes one delivery in; gives the download it completes, if it does. */
  add(delivery: Delivery): Download | undefined {
    const { file, edition, etag, size, delivered, at, took = 0 } = delivery
    const sent = delivered.reduce((sum, { start, end }) => sum + end - start, 0)
    // A whole answer is a download by itself: two people behind one address do not complete each other's.
    if (coversAll(delivered, size))
      return { file, edition, placement: delivery.placement, at, bytes: sent, course: 'whole', took, told: delivery.told ?? NO_PARTICULARS }
    if (sent === 0 && !delivery.unsure) return undefined

    const key = `${delivery.visitor()}\n${file}\n${edition}\n${etag}`
    const known = this.open.get(key)
    const isOld = known !== undefined && at - known.last >= FORGOTTEN_AFTER
    if (isOld) this.giveUp(key, known)
    const began = at - took
    const transfer: Transfer =
      known && !isOld ? known : { have: [], unsure: undefined, bytes: 0, placement: undefined, began, last: at, size }
    for (const stretch of delivered) {
      // Who goes on from within the unsure stretch has all before that point.
      const { unsure } = transfer
      if (unsure && stretch.start >= unsure.start && stretch.start <= unsure.end) {
        transfer.have = addInterval(transfer.have, { start: unsure.start, end: stretch.start })
      }
      transfer.have = addInterval(transfer.have, stretch)
    }
    transfer.unsure = delivery.unsure
    transfer.bytes += sent
    transfer.placement ??= delivery.placement
    transfer.told ??= delivery.told
    transfer.last = at
    // Re-inserting keeps the map in order of last use, oldest first.
    this.open.delete(key)
    this.touched.add(key)
    if (coversAll(transfer.have, size)) {
      const { placement, bytes, told = NO_PARTICULARS } = transfer
      return { file, edition, placement, at, bytes, course: 'pieces', took: at - (transfer.began ?? at), told }
    }
    this.open.set(key, transfer)
    this.forget(at)
    return undefined
  }

  /** Gives up those that stand still. */
  forget(now: number): void {
    for (const [key, transfer] of this.open) {
      if (this.open.size <= MOST_OPEN && now - transfer.last < FORGOTTEN_AFTER) return
      this.giveUp(key, transfer)
    }
  }

  private giveUp(key: string, { have, last, size }: Transfer): void {
    this.open.delete(key)
    this.touched.add(key)
    const file = key.split('\n')[1]
    if (size === undefined || file === undefined) return
    this.broken.push({ file, size, last, have: have.reduce((sum, { start, end }) => sum + end - start, 0) })
  }
}
