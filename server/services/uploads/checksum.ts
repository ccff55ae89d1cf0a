import { createHash, type Hash } from 'node:crypto'
import { crc32 } from 'node:zlib'

/** Algorithms of the tus checksum extension offered here; a server has to know sha1 at least. */
export const CHECKSUM_ALGORITHMS = ['sha1', 'sha256', 'crc32']

/** The checksum a client announced for one PATCH (tus 1.0, "Checksum"). */
export class ChunkChecksum {
  private hash: Hash | undefined
  private crc = 0
  private constructor(
    algorithm: string,
    private expected: Buffer,
  ) {
    if (algorithm !== 'crc32') this.hash = createHash(algorithm)
  }

  /**
   * @param header `Upload-Checksum`: an algorithm, a space and the checksum in Base64
   * @returns undefined where the header is broken or the algorithm not offered
   */
  static parse(header: string): ChunkChecksum | undefined {
    const [algorithm, value] = header.trim().split(' ')
    if (!algorithm || !value || !CHECKSUM_ALGORITHMS.includes(algorithm)) return undefined
    return new ChunkChecksum(algorithm, Buffer.from(value, 'base64'))
  }

  update(chunk: Buffer): void {
    if (this.hash) this.hash.update(chunk)
    else this.crc = crc32(chunk, this.crc)
  }

  matches(): boolean {
    const actual = this.hash?.digest() ?? Buffer.from(this.crc.toString(16).padStart(8, '0'), 'hex')
    return actual.equals(this.expected)
  }
}
