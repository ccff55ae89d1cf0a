/** A file that goes into a zip; its bytes are stored as they are. */
export interface ZipMember {
  /** path in the zip, with `/` between folders */
  name: string
  /** bytes */
  size: number
  crc32: number
  modified: Date
  /** where the bytes are: the sender's own mark */
  source: string
}

/** A stretch of a zip: bytes that are made for it, or a member's own. */
export type ZipStretch = { bytes: Uint8Array } | { source: string, size: number }

export interface ZipLayout {
  stretches: ZipStretch[]
  /** bytes of the whole */
  size: number
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

/** Writes numbers one behind the other, least byte first (4.4.1.1). */
class Record {
  private readonly parts: number[] = []
  u16(...values: number[]): this {
    for (const value of values) this.parts.push(value & 0xff, (value >>> 8) & 0xff)
    return this
  }

  u32(...values: number[]): this {
    for (const value of values) this.u16(value & 0xffff, (value >>> 16) & 0xffff)
    return this
  }

  u64(...values: number[]): this {
    for (const value of values) this.u32(value % 2 ** 32, Math.floor(value / 2 ** 32))
    return this
  }

  raw(bytes: Uint8Array): this {
    for (const byte of bytes) this.parts.push(byte)
    return this
  }

  get length(): number {
    return this.parts.length
  }

  done = () => Uint8Array.from(this.parts)
}

/** Time and date as MS-DOS had them: two-second steps from 1980 on, in UTC (4.4.6). */
export function dosTime(moment: Date): { time: number, date: number } {
  const year = Math.min(2107, Math.max(1980, moment.getUTCFullYear()))
  return {
    time: (moment.getUTCHours() << 11) | (moment.getUTCMinutes() << 5) | (moment.getUTCSeconds() >> 1),
    date: ((year - 1980) << 9) | ((moment.getUTCMonth() + 1) << 5) | moment.getUTCDate(),
  }
}

function localHeader({ size, crc32, modified }: ZipMember, name: Uint8Array): Uint8Array {
  const large = size >= FULL_32
  const { time, date } = dosTime(modified)
  const extra = large ? new Record().u16(1, 16).u64(size, size) : new Record()
  const shown = large ? FULL_32 : size
  return new Record().u32(LOCAL).u16(large ? ZIP64 : PLAIN, UTF8, 0, time, date).u32(crc32, shown, shown)
    .u16(name.length, extra.length).raw(name).raw(extra.done()).done()
}

function centralHeader({ size, crc32, modified }: ZipMember, name: Uint8Array, offset: number): Uint8Array {
  const { time, date } = dosTime(modified)
  const [large, far] = [size >= FULL_32, offset >= FULL_32]
  const body = new Record()
  if (large) body.u64(size, size)
  if (far) body.u64(offset)
  const extra = body.length ? new Record().u16(1, body.length).raw(body.done()).done() : new Uint8Array()
  const shown = large ? FULL_32 : size
  return new Record().u32(CENTRAL).u16(MADE_BY, large || far ? ZIP64 : PLAIN, UTF8, 0, time, date).u32(crc32, shown, shown)
    .u16(name.length, extra.length, 0, 0, 0).u32(FILE_MODE, far ? FULL_32 : offset).raw(name).raw(extra).done()
}

function endOf(count: number, size: number, offset: number): Uint8Array {
  const end = new Record()
  if (count >= FULL_16 || size >= FULL_32 || offset >= FULL_32) {
    end.u32(END_64).u64(44).u16(MADE_BY, ZIP64).u32(0, 0).u64(count, count, size, offset)
      .u32(LOCATOR_64, 0).u64(offset + size).u32(1)
  }
  const few = Math.min(count, FULL_16)
  return end.u32(END).u16(0, 0, few, few).u32(Math.min(size, FULL_32), Math.min(offset, FULL_32)).u16(0).done()
}

/**
 * Lays a zip out before a byte of it is read: sizes and checksums are known, so its length is, too.
 * Zip64 where a size, an offset or the count asks for it.
 */
export function layOutZip(members: ZipMember[]): ZipLayout {
  const stretches: ZipStretch[] = []
  const central: Uint8Array[] = []
  let offset = 0
  for (const member of members) {
    const name = new TextEncoder().encode(member.name)
    const header = localHeader(member, name)
    central.push(centralHeader(member, name, offset))
    stretches.push({ bytes: header })
    if (member.size) stretches.push({ source: member.source, size: member.size })
    offset += header.length + member.size
  }
  const size = central.reduce((sum, bytes) => sum + bytes.length, 0)
  const end = endOf(members.length, size, offset)
  for (const bytes of [...central, end]) stretches.push({ bytes })
  return { stretches, size: offset + size + end.length }
}
