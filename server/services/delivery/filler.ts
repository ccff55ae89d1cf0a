import type { Stretch } from '../../../core/http/stretch'
import type { Trouble } from '../../../core/trust/trustReports'
import { laterTrouble } from '../../log'
import type { OpenBlob, Store } from '../../store/store'

/** Blobs opened before their turn, so that many small ones follow each other without a pause. */
const AHEAD = 2
/** Pieces of any kind taken before their turn: at the end of a large zip stand as many records as files. */
const TAKEN = 64

type Blob = { source: string; start: number; end: number; opened: Promise<OpenBlob> }

/** Stored bytes that are not as their record says. */
export class Damaged extends Error {
  constructor(
    readonly sha256: string,
    readonly trouble: Trouble,
    what: string,
    options?: ErrorOptions,
  ) {
    super(`The stored bytes ${sha256} ${what}.`, options)
  }
}

/** Fills buffers with stretches, one behind the other, however they are cut. */
export class Filler {
  private readonly waiting: (Uint8Array | Blob)[] = []
  /** those among them that are opened */
  private blobs = 0
  private readonly stretches: Iterator<Stretch>

  constructor(
    private readonly store: Store,
    stretches: Iterable<Stretch>,
  ) {
    this.stretches = stretches[Symbol.iterator]()
    this.lookAhead()
  }

  private lookAhead(): void {
    while (this.blobs < AHEAD && this.waiting.length < TAKEN) {
      const { value, done } = this.stretches.next()
      if (done) return
      if (value instanceof Uint8Array) {
        this.waiting.push(value)
        continue
      }
      const opened = this.open(value)
      // Whoever waits for its turn learns of a failure then.
      opened.catch(() => undefined)
      this.waiting.push({ ...value, opened })
      this.blobs++
    }
  }

  private open({ source }: Exclude<Stretch, Uint8Array>): Promise<OpenBlob> {
    return this.store.open(source).catch((error: NodeJS.ErrnoException) => {
      throw error.code === 'ENOENT' ? new Damaged(source, 'missing', 'are missing', { cause: error }) : error
    })
  }

  /** Waits until the first stored bytes are open: what cannot be sent is known before the first byte is. */
  async ready(): Promise<void> {
    const first = this.waiting.find(piece => !(piece instanceof Uint8Array)) as Blob | undefined
    if (!first) return
    const size = await (await first.opened).size()
    if (size < first.end) throw new Damaged(first.source, 'damaged', `are cut off after ${size} bytes`)
  }

  /**
   * Fills a buffer from its start: at least half of it, but at the end of all stretches. It is not filled up from
   * the next blob where one more read would give little.
   *
   * @returns bytes filled; 0 where nothing is left
   * @throws Damaged where stored bytes are missing or too few
   */
  async fill(buffer: Uint8Array): Promise<number> {
    let at = 0
    while (at < buffer.length / 2) {
      const piece = this.waiting[0]
      if (!piece) break
      at += piece instanceof Uint8Array ? this.copy(piece, buffer, at) : await this.read(piece, buffer.subarray(at))
    }
    return at
  }

  private copy(piece: Uint8Array, buffer: Uint8Array, at: number): number {
    const count = Math.min(piece.length, buffer.length - at)
    buffer.set(count === piece.length ? piece : piece.subarray(0, count), at)
    if (count < piece.length) this.waiting[0] = piece.subarray(count)
    else this.advance()
    return count
  }

  private async read(piece: Blob, into: Uint8Array): Promise<number> {
    const blob = await piece.opened
    const wanted = Math.min(into.length, piece.end - piece.start)
    const count = await blob.read(into.subarray(0, wanted), piece.start)
    if (wanted && !count) throw new Damaged(piece.source, 'damaged', `are cut off after ${piece.start} bytes`)
    piece.start += count
    if (piece.start >= piece.end) {
      this.advance()
      // Nobody waits for it: the next bytes can be read meanwhile.
      blob.close().catch(laterTrouble('a stored file could not be closed'))
    }
    return count
  }

  private advance(): void {
    if (!(this.waiting.shift() instanceof Uint8Array)) this.blobs--
    this.lookAhead()
  }

  /** Closes whatever is open. */
  async close(): Promise<void> {
    const open = this.waiting.splice(0)
    await Promise.all(
      open.map(
        async piece =>
          piece instanceof Uint8Array ||
          (await piece.opened.then(
            blob => blob.close(),
            () => undefined,
          )),
      ),
    )
  }
}
