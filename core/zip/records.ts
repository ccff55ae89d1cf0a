/** What the records of a zip say of one file; its bytes are stored as they are. */
export interface ZipFacts {
  /** bytes */
  size: number
  crc32: number
  modified: Date
}

// Signatures and sizes of APPNOTE.TXT 6.3.10, sections 4.3.7 to 4.3.16.
const LOCAL = 0x04034b50
const CENTRAL = 0x02014b50
const END = 0x06054b50
const END_64 = 0x06064b50
const LOCATOR_64 = 0x07064b50
const FULL_32 = 0xffffffff
const FULL_16 = 0xffff
/** Names are UTF-8 (4.4.4, bit 11). */
const UTF8 = 0x0800
const PLAIN = 20
const ZIP64 = 45
/** Made on Unix, so that readers take the mode below for a plain file's. */
const MADE_BY = (3 << 8) | ZIP64
const FILE_MODE = (0o100644 << 16) >>> 0

const ZIP64_FIELD = 0x0001
/** Seconds since 1970, UTC: MS-DOS times know no time zone (4.6.1 registers it, Info-ZIP describes it). */
const TIMESTAMP_FIELD = 0x5455
const TIMESTAMP_SIZE = 9
const LAST_TIMESTAMP = 0x7fffffff

/** Writes numbers one behind the other, least byte first (4.4.1.1). */
class Record {
  private readonly view: DataView
  private at = 0

  constructor(readonly bytes: Uint8Array) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  }

  u16(...values: number[]): this {
    for (const value of values) {
      this.view.setUint16(this.at, value, true)
      this.at += 2
    }
    return this
  }

  u32(...values: number[]): this {
    for (const value of values) {
      this.view.setUint32(this.at, value, true)
      this.at += 4
    }
    return this
  }

  u64(...values: number[]): this {
    for (const value of values) this.u32(value % 2 ** 32, Math.floor(value / 2 ** 32))
    return this
  }

  raw(bytes: Uint8Array): this {
    this.bytes.set(bytes, this.at)
    this.at += bytes.length
    return this
  }
}

const record = (length: number) => new Record(new Uint8Array(length))

/** Time and date as MS-DOS had them: two-second steps from 1980 on, in UTC (4.4.6). */
export function dosTime(moment: Date): { time: number; date: number } {
  const year = Math.min(2107, Math.max(1980, moment.getUTCFullYear()))
  return {
    time: (moment.getUTCHours() << 11) | (moment.getUTCMinutes() << 5) | (moment.getUTCSeconds() >> 1),
    date: ((year - 1980) << 9) | ((moment.getUTCMonth() + 1) << 5) | moment.getUTCDate(),
  }
}

const secondsOf = (moment: Date) => Math.floor(moment.getTime() / 1000)
const hasTimestamp = (moment: Date) => secondsOf(moment) >= 0 && secondsOf(moment) <= LAST_TIMESTAMP
const timestampSize = (moment: Date) => (hasTimestamp(moment) ? TIMESTAMP_SIZE : 0)

function writeTimestamp(to: Record, moment: Date): Record {
  if (!hasTimestamp(moment)) return to
  to.u16(TIMESTAMP_FIELD, TIMESTAMP_SIZE - 4).raw(Uint8Array.of(1))
  return to.u32(secondsOf(moment))
}

/** The records of a zip and their lengths, which are known without making them. */
export class ZipRecords {
  /** @param always64 writes the 8-byte forms where the 4-byte ones would do, too */
  constructor(private readonly always64 = false) {}

  private isLarge = (size: number) => this.always64 || size >= FULL_32

  private localExtra = ({ size, modified }: ZipFacts) => (this.isLarge(size) ? 20 : 0) + timestampSize(modified)

  /** bytes of {@link local} */
  localLength = (facts: ZipFacts, nameLength: number) => 30 + nameLength + this.localExtra(facts)

  /** What stands in front of a file (4.3.7). */
  local(facts: ZipFacts, name: Uint8Array): Uint8Array {
    const { size, crc32, modified } = facts
    const large = this.isLarge(size)
    const { time, date } = dosTime(modified)
    const shown = large ? FULL_32 : size
    const to = record(this.localLength(facts, name.length))
      .u32(LOCAL)
      .u16(large ? ZIP64 : PLAIN, UTF8, 0, time, date)
      .u32(crc32, shown, shown)
      .u16(name.length, this.localExtra(facts))
      .raw(name)
    // Both sizes always stand in a local header's field (4.5.3).
    if (large) to.u16(ZIP64_FIELD, 16).u64(size, size)
    return writeTimestamp(to, modified).bytes
  }

  private centralFar = ({ size }: ZipFacts, offset: number) => (this.isLarge(size) ? 16 : 0) + (this.isLarge(offset) ? 8 : 0)

  private centralExtra(facts: ZipFacts, offset: number): number {
    const far = this.centralFar(facts, offset)
    return (far && far + 4) + timestampSize(facts.modified)
  }

  /** bytes of {@link central} */
  centralLength = (facts: ZipFacts, nameLength: number, offset: number) => 46 + nameLength + this.centralExtra(facts, offset)

  /** A file's entry in the directory at the end (4.3.12). */
  central(facts: ZipFacts, name: Uint8Array, offset: number): Uint8Array {
    const { size, crc32, modified } = facts
    const [large, far] = [this.isLarge(size), this.isLarge(offset)]
    const { time, date } = dosTime(modified)
    const shown = large ? FULL_32 : size
    const to = record(this.centralLength(facts, name.length, offset))
      .u32(CENTRAL)
      .u16(MADE_BY, large || far ? ZIP64 : PLAIN, UTF8, 0, time, date)
      .u32(crc32, shown, shown)
      .u16(name.length, this.centralExtra(facts, offset), 0, 0, 0)
      .u32(FILE_MODE, far ? FULL_32 : offset)
      .raw(name)
    if (large || far) to.u16(ZIP64_FIELD, this.centralFar(facts, offset))
    if (large) to.u64(size, size)
    if (far) to.u64(offset)
    return writeTimestamp(to, modified).bytes
  }

  /** The end of the directory, with its zip64 form in front where a number asks for it (4.3.14 to 4.3.16). */
  end(count: number, size: number, offset: number): Uint8Array {
    const large = this.always64 || count >= FULL_16 || size >= FULL_32 || offset >= FULL_32
    const to = record((large ? 76 : 0) + 22)
    if (large) {
      to.u32(END_64)
        .u64(44)
        .u16(MADE_BY, ZIP64)
        .u32(0, 0)
        .u64(count, count, size, offset)
        .u32(LOCATOR_64, 0)
        .u64(offset + size)
        .u32(1)
    }
    const few = Math.min(count, FULL_16)
    return to.u32(END).u16(0, 0, few, few).u32(Math.min(size, FULL_32), Math.min(offset, FULL_32)).u16(0).bytes
  }
}
