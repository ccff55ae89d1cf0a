import { normalPath } from '../../oldAddresses/path'
import { DoubleClicks } from '../doubleClicks'
import { campaignOf, referredBy } from '../particulars'
import type { LeftOut } from './brought'
import type { Logged } from './accessLog'

/** A file of the library, as logs may name it. */
export interface KnownFile {
  id: string
  /** bytes of each of its editions */
  sizes: readonly number[]
}

/** A completed download that a log tells of. */
export interface LoggedDownload {
  file: string
  /** milliseconds since 1970 */
  at: number
  bytes: number
  address: string
  userAgent: string
  referrer: string
  referrerPath: string
  campaign: string
}

/** Pieces of a file that were sent to one visitor within this many milliseconds belong together, as they do where they are counted here. */
const TOGETHER = 24 * 60 * 60 * 1000
/** Visitors with pieces of a file at once. */
const MOST_OPEN = 100_000

/** Learns from answers how large files were whole, at their addresses of before: a log says only how much was sent. */
export class WholeSizes {
  private readonly sizes = new Map<string, Map<number, number>>()

  /** @param path as {@link pathOf} gives it */
  add(path: string, { status, bytes }: Pick<Logged, 'status' | 'bytes'>): void {
    if (status !== 200 || !bytes) return
    const known = this.sizes.get(path) ?? new Map<number, number>()
    this.sizes.set(path, known)
    known.set(bytes, (known.get(bytes) ?? 0) + 1)
  }

  /**
   * The fewest bytes that are taken for a whole file at an address: the smallest size that two answers or an edition had, since hardly two
   * transfers break off at the same byte; where there is none, the largest that was sent.
   */
  of(path: string, editions: readonly number[]): number {
    const sent = [...(this.sizes.get(path) ?? [])]
    const whole = sent.flatMap(([size, count]) => (count > 1 || editions.includes(size) ? size : []))
    return whole.length ? Math.min(...whole) : Math.max(0, ...sent.map(([size]) => size))
  }
}

interface Needs {
  /** the file at a path of before or of now */
  fileAt: (path: string) => KnownFile | undefined
  whole: WholeSizes
  isRobot: (userAgent: string | undefined) => boolean
  /** hosts of the site */
  hosts: readonly string[]
  /** milliseconds since 1970; what came then or later is counted here already */
  before: number
}

/** The path that is meant, without its query. */
export const pathOf = (asked: string): string => {
  // Proxies write whole addresses (RFC 9112, section 3.2.2).
  const path = /^https?:\/\//i.test(asked) && URL.canParse(asked) ? new URL(asked).pathname + new URL(asked).search : asked
  return normalPath(path).split('?')[0]!
}

/** Counts what access logs tell by the rules that hold here, as far as logs say enough for them. */
export class LogCount {
  private readonly doubleClicks = new DoubleClicks()
  private readonly open = new Map<string, { at: number; bytes: number }>()

  constructor(private readonly needs: Needs) {}

  /** What a request was: a download, or why it is none. */
  count(logged: Logged): LoggedDownload | LeftOut {
    const { at, address, method, status, userAgent, referer } = logged
    const path = pathOf(logged.path)
    const file = this.needs.fileAt(path)
    if (!file) return 'other'
    if (method !== 'GET' || (status !== 200 && status !== 206)) return 'notAsked'
    if (at >= this.needs.before) return 'later'
    if (this.needs.isRobot(userAgent || undefined)) return 'robot'
    const visitor = `${address}\n${userAgent}`
    const whole = this.needs.whole.of(path, file.sizes)
    const bytes = status === 206 ? this.together(`${visitor}\n${file.id}`, logged) : (logged.bytes ?? whole)
    if (bytes < whole || (status === 206 && whole === 0)) return 'broken'
    this.open.delete(`${visitor}\n${file.id}`)
    if (this.doubleClicks.repeats(visitor, file.id, at)) return 'repeated'
    const { referrer, referrerPath } = referredBy(referer, this.needs.hosts)
    const campaign = campaignOf(new URLSearchParams(logged.path.split('?')[1] ?? '').get('from'))
    return { file: file.id, at, bytes, address, userAgent, referrer, referrerPath, campaign }
  }

  /** Bytes that one visitor was sent of a file in pieces so far. */
  private together(key: string, { at, bytes }: Logged): number {
    const known = this.open.get(key)
    const sum = (known && at - known.at < TOGETHER ? known.bytes : 0) + (bytes ?? 0)
    // Re-inserting keeps the map in order of last use, oldest first.
    this.open.delete(key)
    this.open.set(key, { at, bytes: sum })
    for (const old of this.open.keys()) {
      if (this.open.size <= MOST_OPEN) break
      this.open.delete(old)
    }
    return sum
  }
}
