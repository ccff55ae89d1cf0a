import { createHash, type Hash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { crc32 } from 'node:zlib'

/** SHA-256 (FIPS 180-4) and CRC-32 (as in the ZIP note, 4.4.7) of bytes as they pass. */
export class RunningDigest {
  private constructor(
    private sha: Hash,
    private crc: number,
    private count: number,
  ) {}

  static empty = () => new RunningDigest(createHash('sha256'), 0, 0)

  /** The digest of bytes that are on disk already, after a restart. */
  static async ofFile(path: string): Promise<RunningDigest> {
    const digest = RunningDigest.empty()
    for await (const chunk of createReadStream(path, { highWaterMark: 1024 * 1024 })) digest.update(chunk as Buffer)
    return digest
  }

  /** bytes seen so far */
  get length(): number {
    return this.count
  }

  update(chunk: Buffer): void {
    this.sha.update(chunk)
    this.crc = crc32(chunk, this.crc)
    this.count += chunk.length
  }

  copy(): RunningDigest {
    return new RunningDigest(this.sha.copy(), this.crc, this.count)
  }

  /** Leaves the running digest usable. */
  result(): { sha256: string; crc32: number } {
    return { sha256: this.sha.copy().digest('hex'), crc32: this.crc }
  }
}
