import { createReadStream } from 'node:fs'
import { open } from 'node:fs/promises'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import { createGunzip } from 'node:zlib'

/** Bytes that a file is known by. */
const BEGINNING = 16_384
/** A longer line is none of a log. */
const LONGEST = 65_536

const isPacked = async (path: string): Promise<boolean> => {
  const handle = await open(path)
  try {
    const { buffer } = await handle.read(Buffer.alloc(2), 0, 2, 0)
    // RFC 1952, section 2.3.1.
    return buffer[0] === 0x1f && buffer[1] === 0x8b
  } finally {
    await handle.close()
  }
}

/** Logs that were put away are often packed. */
async function contentsOf(path: string): Promise<Readable> {
  const raw = createReadStream(path)
  if (!(await isPacked(path))) return raw
  const unpacked = createGunzip()
  raw.on('error', error => unpacked.destroy(error))
  // Who has read enough leaves no file open.
  unpacked.on('close', () => raw.destroy())
  return raw.pipe(unpacked)
}

/** The first thousands of characters, to know a format by. */
export async function beginningOf(path: string): Promise<string> {
  const stream = await contentsOf(path)
  let text = ''
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    text += chunk.toString('utf8')
    if (text.length >= BEGINNING) break
  }
  return text
}

/** What comes after the beginning of a line that never ends is not kept: such a file would fill the memory. */
async function* endingLines(stream: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  let length = 0
  for await (const chunk of stream) {
    const end = chunk.lastIndexOf(0x0a)
    length = end < 0 ? length + chunk.length : chunk.length - end - 1
    if (end >= 0 || length <= LONGEST + chunk.length) yield chunk
  }
}

/** A text's lines, packed by gzip or not; one that is longer than any of a log is empty. */
export async function* linesOf(path: string): AsyncGenerator<string> {
  for await (const line of createInterface({ input: Readable.from(endingLines(await contentsOf(path))), crlfDelay: Infinity }))
    yield line.length > LONGEST ? '' : line.replace(/^\uFEFF/, '')
}
