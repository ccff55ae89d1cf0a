import { open, rm } from 'node:fs/promises'
import type { Readable } from 'node:stream'
import { diskFull, isDiskFull } from '../../../core/diskFull'
import { RunningDigest } from './digest'

/** Bytes that were written down whole, with their digests. */
export interface Kept {
  path: string
  size: number
  sha256: string
  crc32: number
}

/**
 * Writes a stream to a new file, hashed on its way; nothing is left of a failed one.
 *
 * @param onBytes told of each stretch that was written
 * @throws Problem 507 where the disk is full
 */
export async function keep(stream: Readable, path: string, onBytes: (count: number) => void = () => {}): Promise<Kept> {
  // A stream may fail before it is read; its error is met below, and must not end the process before.
  stream.on('error', () => {})
  const digest = RunningDigest.empty()
  const handle = await open(path, 'wx')
  try {
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      digest.update(chunk)
      await handle.writeFile(chunk)
      onBytes(chunk.length)
    }
    await handle.sync()
  } catch (error) {
    await rm(path, { force: true })
    throw isDiskFull(error) ? diskFull() : error
  } finally {
    await handle.close()
  }
  return { path, size: digest.length, ...digest.result() }
}
