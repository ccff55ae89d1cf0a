import { createHash } from 'node:crypto'
import { crc32 } from 'node:zlib'
import type { BundledFile } from '../../../core/bundle/compose'
import type { BundleMember } from '../../../core/bundle/members'
import type { ZipMember } from '../../../core/zip/layout'

/** A member as it goes from thread to thread: one string for a whole bundle costs less than thousands of objects. */
type Packed = [name: string, size: number, crc32: number, modified: number, sha256: string | null, body?: string]

/** Readers of texts on any desktop know these line ends. */
const textBytes = (body: string): Buffer => Buffer.from(body.replace(/\r?\n/g, '\r\n'))

/** @param composed when the bundle was put together, in milliseconds since the epoch: its texts are of then */
export function packMembers(members: BundleMember<BundledFile>[], composed: number): string {
  return JSON.stringify(
    members.map((member): Packed => {
      if ('file' in member) {
        const { size, crc32: crc, created, sha256 } = member.file
        return [member.path, size, crc, created, sha256]
      }
      const bytes = textBytes(member.body)
      return [member.path, bytes.length, crc32(bytes), composed, null, member.body]
    }),
  )
}

/** The members of {@link packMembers}. */
export const unpackMembers = (packed: string): ZipMember[] =>
  (JSON.parse(packed) as Packed[]).map(([name, size, crc, modified, sha256, body]) => ({
    name,
    size,
    crc32: crc,
    modified: new Date(modified),
    source: sha256 ?? textBytes(body!),
  }))

/** What tells the contents of a zip from any others: the same for the same, to the byte. */
export function fingerprintOf(members: ZipMember[]): string {
  const hash = createHash('sha256')
  for (const { name, size, crc32: crc, modified, source } of members) {
    hash.update(
      JSON.stringify([
        name,
        size,
        crc,
        Math.floor(modified.getTime() / 1000),
        typeof source === 'string' ? source : createHash('sha256').update(source).digest('hex'),
      ]),
    )
  }
  return hash.digest('hex').slice(0, 32)
}
