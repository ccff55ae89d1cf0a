import { createHash, randomFillSync } from 'node:crypto'
import { open } from 'node:fs/promises'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import type { FileItem } from '../core/files/fileItem'
import type { Trough } from '../server/trough'

const CHUNK = 2_000_000

/** Puts a file of random bytes into the library. */
export async function putRandom(
  { library, folder }: Trough,
  fileName: string,
  size: number,
  place: string | null = null,
  editionOf?: string,
): Promise<FileItem> {
  const path = join(folder, 'incoming', `${fileName}.part`)
  const hash = createHash('sha256')
  let crc = 0
  const handle = await open(path, 'w')
  for (let written = 0; written < size; written += CHUNK) {
    const chunk = randomFillSync(Buffer.allocUnsafe(Math.min(CHUNK, size - written)))
    hash.update(chunk)
    crc = crc32(chunk, crc)
    await handle.write(chunk)
  }
  await handle.close()
  return library.ingest({ path, fileName, size, sha256: hash.digest('hex'), crc32: crc, folder: place, editionOf })
}
