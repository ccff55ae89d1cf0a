import type { ByteRange } from '../http/range'
import type { Stretch } from '../http/stretch'
import { isSafePath } from './safePaths'
import { ZipRecords, type ZipFacts } from './records'

/** A file that goes into a zip; its bytes are stored as they are. */
export interface ZipMember extends ZipFacts {
  /** path in the zip, with `/` between folders */
  name: string
  /** where the bytes are: the sender's own mark, or the bytes themselves */
  source: string | Uint8Array
}

/**
 * A zip laid out before a byte of it is read: sizes and checksums are known, so its length and what stands
 * at any place in it are, too. Records are made when they are asked for; what is kept is two numbers a member.
 * Zip64 where a size, an offset or the count asks for it (APPNOTE.TXT 6.3.10).
 */
export class ZipLayout {
  /** bytes of the whole */
  readonly size: number
  private readonly records: ZipRecords
  /** where each member's local header begins, then where the directory does */
  private readonly locals: Float64Array
  /** where each member's entry in the directory begins, then where the directory ends */
  private readonly centrals: Float64Array
  private readonly end: Uint8Array

  /**
   * @param always64 writes zip64 where it is not needed, too
   * @throws RangeError where the path of a member leads out of the zip
   */
  constructor(
    readonly members: readonly ZipMember[],
    always64 = false,
  ) {
    const unsafe = members.find(({ name }) => !isSafePath(name))
    if (unsafe) throw new RangeError(`“${unsafe.name}” is no path in a zip.`)
    this.records = new ZipRecords(always64)
    this.locals = new Float64Array(members.length + 1)
    this.centrals = new Float64Array(members.length + 1)
    const lengths = members.map(({ name }) => encode(name).length)
    let offset = 0
    for (const [index, member] of members.entries()) {
      this.locals[index] = offset
      offset += this.records.localLength(member, lengths[index]!) + member.size
    }
    const directory = offset
    this.locals[members.length] = directory
    for (const [index, member] of members.entries()) {
      this.centrals[index] = offset
      offset += this.records.centralLength(member, lengths[index]!, this.locals[index]!)
    }
    this.centrals[members.length] = offset
    this.end = this.records.end(members.length, offset - directory, directory)
    this.size = offset + this.end.length
  }

  /** What stands in a range of the zip, from its start to its end. */
  *stretches({ start, end }: ByteRange = { start: 0, end: this.size }): Generator<Stretch> {
    const { members, locals, centrals, records } = this
    for (let index = lastBefore(locals, start); index < members.length && locals[index]! < end; index++) {
      const member = members[index]!
      const header = records.local(member, encode(member.name))
      yield* cut(header, locals[index]!, start, end)
      const at = locals[index]! + header.length
      if (typeof member.source !== 'string') yield* cut(member.source, at, start, end)
      else if (member.size && at < end && at + member.size > start)
        yield { source: member.source, start: Math.max(0, start - at), end: Math.min(member.size, end - at) }
    }
    for (let index = lastBefore(centrals, start); index < members.length && centrals[index]! < end; index++) {
      const member = members[index]!
      yield* cut(records.central(member, encode(member.name), locals[index]!), centrals[index]!, start, end)
    }
    yield* cut(this.end, centrals[members.length]!, start, end)
  }
}

const encoder = new TextEncoder()
const encode = (name: string) => encoder.encode(name)

/** The part of bytes, which begin at a place, that lies in a range; nothing where none does. */
function* cut(bytes: Uint8Array, at: number, start: number, end: number): Generator<Uint8Array> {
  if (at < end && at + bytes.length > start && bytes.length) yield bytes.subarray(Math.max(0, start - at), Math.min(bytes.length, end - at))
}

/** Index of the last place that is not behind another one, or 0. */
function lastBefore(places: Float64Array, place: number): number {
  let [low, high] = [0, places.length - 1]
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if (places[middle]! <= place) low = middle
    else high = middle - 1
  }
  return low
}
