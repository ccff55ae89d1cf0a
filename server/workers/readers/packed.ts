import { createReadStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import { basename, dirname } from 'node:path'
import { createGunzip } from 'node:zlib'
import SevenZip from '7z-wasm'
import { extract } from 'tar-stream'
import { Unreadable, type Reader } from './reader'
import { namesOf } from './archive'

/** A file in an archive, as it is listed. */
export interface Listed {
  name: string
  /** bytes; undefined where the archive does not say */
  size: number | undefined
  locked: boolean
}

/** More is not listed. */
class Enough extends Error {}
/** Letters of a list; longer ones are no list of files. */
const LONGEST_LIST = 50_000_000

const damaged = (why: string) => new Unreadable(`The archive is damaged or cut off (${why}).`)

/** The files of a tape archive that is packed with gzip, as it unpacks; nothing of them is kept. */
async function listTape(path: string, take: (file: Listed) => boolean): Promise<void> {
  const tape = extract()
  tape.on('entry', ({ name, size, type }, stream, next) => {
    stream.on('end', next).resume()
    if (type !== 'directory' && !take({ name, size, locked: false })) tape.destroy(new Enough())
  })
  await pipeline(createReadStream(path), createGunzip(), tape).catch((error: Error) => {
    if (!(error instanceof Enough)) throw damaged(error.message)
  })
}

/** Where the archive lies for the program, which sees nothing else of the disk. */
const INSIDE = '/in'

/**
 * What 7-Zip says of an archive, line by line (`l -slt`): blocks of `Name = value`, parted by empty lines. It runs as WebAssembly and
 * reads the file where it lies.
 */
async function listing(path: string): Promise<{ lines: string[]; errors: string[] }> {
  const [lines, errors]: [string[], string[]] = [[], []]
  let letters = 0
  const program = await SevenZip({
    print: line => {
      letters += line.length
      if (letters < LONGEST_LIST) lines.push(line)
    },
    printErr: line => errors.push(line),
    quit: () => undefined,
  })
  program.FS.mkdir(INSIDE)
  program.FS.mount(program.NODEFS, { root: dirname(path) }, INSIDE)
  try {
    // A password is asked for on the keyboard that is not there: the one given opens nothing that is locked.
    program.callMain(['l', '-slt', '-ba', '-bsp0', '-p-', '-sccUTF-8', `${INSIDE}/${basename(path)}`])
  } catch (error) {
    if (!lines.length) errors.push(String(error))
  }
  return { lines, errors: errors.map(line => line.replaceAll(INSIDE, '').trim()).filter(line => line && line !== '/') }
}

async function listOther(path: string, take: (file: Listed) => boolean): Promise<void> {
  const { lines, errors } = await listing(path)
  if (!lines.some(line => line.includes(' = '))) {
    if (errors.some(line => /password|encrypted/i.test(line)))
      throw new Unreadable('The archive is locked with a password, its list of files too: visitors need it.')
    throw damaged(errors.find(line => /error|can ?not/i.test(line)) ?? 'it holds no list of files')
  }
  for (const block of lines.join('\n').split(/\n\s*\n/)) {
    const said = new Map(
      [...block.matchAll(/^(Path|Size|Folder|Encrypted|Attributes) = (.*)$/gm)].map(([, name, value]) => [name!, value!]),
    )
    if (!said.size || said.get('Folder') === '+' || said.get('Attributes')?.startsWith('D')) continue
    const size = said.get('Size')
    // A stream that was packed alone is called as its archive, without that one's ending.
    const name = said.get('Path') ?? ''
    if (!take({ name, size: size ? Number(size) : undefined, locked: said.get('Encrypted') === '+' })) return
  }
}

/** The two bytes at the beginning of what gzip packed (RFC 1952, 2.3.1). */
async function isGzip(path: string): Promise<boolean> {
  for await (const chunk of createReadStream(path, { end: 1 }) as AsyncIterable<Buffer>) return chunk[0] === 0x1f && chunk[1] === 0x8b
  return false
}

/**
 * The files in an archive that is no zip, without unpacking any to the disk: tar, 7z, rar, gzip, bzip2, xz.
 *
 * @param take false: no more of them
 * @throws Unreadable where it is damaged, or locked as a whole
 */
export async function listPacked(path: string, take: (file: Listed) => boolean): Promise<void> {
  if (await isGzip(path)) {
    let any = false
    try {
      await listTape(path, file => {
        any = true
        return take(file)
      })
      if (any) return
    } catch (error) {
      // What is no tape may still be one packed file.
      if (any) throw error
    }
  }
  await listOther(path, take)
}

/** How many files are in an archive, and their names. */
export const readPacked: Reader = (path, sink) => namesOf(take => listPacked(path, ({ name }) => take(name)), sink)
