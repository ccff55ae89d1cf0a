import type { IncomingMessage } from 'node:http'
import { readFile } from 'node:fs/promises'
import { and, eq, isNull } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import { LRUCache } from 'lru-cache'
import sharp from 'sharp'
import { hasPages } from '../../../core/files/fileContents'
import type { Facts } from '../../../core/files/fileItem'
import { familyOf } from '../../../core/files/mediaType'
import { represent, type Representation } from '../../../core/http/respond'
import { LEAF_WIDTHS } from '../../../core/see/seePage'
import { PICTURE_WIDTHS } from '../../../core/page/href'
import { Problem } from '../../../core/problem'
import type { Database } from '../../db/connection'
import { blobs, editions, files } from '../../db/schema'
import { behindOf } from '../../../core/gate/asks'
import type { Events } from '../events'
import type { Guard, Wanted } from '../gates/guard'
import type { Looking } from '../reading/looking'
import type { ReadingService } from '../reading/reading'

/** The bytes that show a file, and whether their first page is drawn. */
interface Source {
  sha256: string
  mediaType: string
  facts: Facts
  drawn: boolean
  /** pages of a document of which each can be drawn; 0 where none can */
  pages: number
}

/** What shows a file: another picture where it was given one; and the file itself, for its pages. */
interface Sources {
  shown: Source
  itself: Source
  /** what has to be known to say who may see them: the file, and the picture that was given to it */
  wanted: Wanted
  given?: Wanted
}

interface Kind {
  jpeg: boolean
  page: number
}

export interface Picture {
  bytes: Buffer
  representation: Representation
}

const MEMORY = 24 * 1000 * 1000
/** A first page, no wider than it is asked for. */
async function narrowed(webp: Buffer, width: number): Promise<Buffer> {
  const { width: own } = await sharp(webp).metadata()
  return own <= width ? webp : sharp(webp).resize({ width }).webp({ quality: 80 }).toBuffer()
}

const missing = () => new Problem(404, 'There is no picture here.', 'It may not be drawn yet, or its file is gone.')

/** What shows files on pages: pictures in the widths that browsers ask for, and first pages of documents. */
export function createPictures(
  db: Database,
  looking: Looking,
  reading: ReadingService,
  guard: Pick<Guard, 'mayHave' | 'standing'>,
  events: Events,
) {
  const kept = new LRUCache<string, Promise<Picture>>({ max: 500, maxSize: MEMORY, sizeCalculation: () => 60_000 })
  // Visitors ask often: which bytes show a file is asked of the database once, until the library changes.
  const sources = new LRUCache<string, Sources>({ max: 5000 })
  let age = 0
  const forget = () => {
    age++
    sources.clear()
  }
  events.on('library', forget)
  events.on('read', forget)
  events.on('bytes', () => kept.clear())
  const [own, ownEdition] = [alias(files, 'own'), alias(editions, 'own_edition')]

  async function webpOf({ sha256, mediaType, facts, drawn }: Source, width: number, page: number): Promise<Buffer> {
    if (page) return narrowed(await looking.page({ sha256, facts }, page), width)
    if (familyOf(mediaType) === 'picture') return looking.picture(sha256, width)
    if (!drawn) throw missing()
    return narrowed(await readFile(reading.pictureOf(sha256)), width)
  }

  async function draw(source: Source, width: number, { jpeg, page }: Kind): Promise<Picture> {
    const { sha256 } = source
    const webp = await webpOf(source, width, page)
    const bytes = jpeg ? await sharp(webp).flatten({ background: '#FFFFFF' }).jpeg({ quality: 82 }).toBuffer() : webp
    const representation = represent({
      size: bytes.length,
      contentType: jpeg ? 'image/jpeg' : 'image/webp',
      etag: `"${sha256.slice(0, 24)}-${width}${page ? `-${page}` : ''}${jpeg ? '-jpeg' : ''}"`,
      extra: { 'X-Content-Type-Options': 'nosniff', 'Content-Security-Policy': "default-src 'none'" },
    })
    return { bytes, representation }
  }

  async function read(handle: string): Promise<Sources | undefined> {
    const [row] = await db
      .select({
        sha256: editions.sha256,
        mediaType: editions.mediaType,
        preview: blobs.preview,
        facts: blobs.facts,
        own: ownEdition.sha256,
        ownType: ownEdition.mediaType,
        wanted: { id: files.id, gate: files.gate, folder: files.folder },
        given: { id: own.id, gate: own.gate, folder: own.folder },
      })
      .from(files)
      .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .leftJoin(own, and(eq(own.id, files.picture), isNull(own.deleted)))
      .leftJoin(ownEdition, and(eq(ownEdition.fileId, own.id), eq(ownEdition.number, own.edition), eq(ownEdition.withdrawn, false)))
      .where(and(eq(files.handle, handle), isNull(files.deleted), eq(editions.withdrawn, false)))
    if (!row) return undefined
    const { sha256, mediaType, preview, facts } = row
    const itself = { sha256, mediaType, drawn: preview === 'ready', facts, pages: hasPages({ mediaType, facts }) ? (facts.pages ?? 0) : 0 }
    const instead = familyOf(row.mediaType) !== 'picture' && row.own !== null
    const { wanted, given } = row
    return instead
      ? { shown: { sha256: row.own!, mediaType: row.ownType!, facts: {}, drawn: true, pages: 0 }, itself, wanted, given: given as Wanted }
      : { shown: itself, itself, wanted }
  }

  /** @throws Problem 404 */
  async function sourcesOf(handle: string): Promise<Sources> {
    const known = sources.get(handle)
    if (known) return known
    const asked = age
    const found = await read(handle)
    if (!found) throw missing()
    if (asked === age) sources.set(handle, found)
    return found
  }

  return {
    /**
     * Whether what shows the file with a handle is somebody's alone, since it stands behind a gate.
     *
     * @param inside a page of it, which no gate shows to everybody
     * @throws Problem 404 for who has not passed it: nobody is told that there is a picture
     */
    async isOwnTo(request: Pick<IncomingMessage, 'headers'>, handle: string, inside: boolean): Promise<boolean> {
      const { wanted, given } = await sourcesOf(handle)
      const { gates, of } = await guard.standing()
      const behind = behindOf([...of(wanted), ...(given ? of(given) : [])], gates)
      if (!behind || (behind.showsFirst && !inside)) return false
      if (!(await guard.mayHave(request, wanted)) || (given && !(await guard.mayHave(request, given)))) throw missing()
      return true
    },

    /**
     * What shows the file with a handle: itself where it is a picture, the picture it was given, or its first page.
     *
     * @param width in pixels, one of those that are served
     * @param jpeg for programs that know no WebP
     * @param page one page of a document, counted from 1, instead
     * @throws Problem 404
     */
    async find(handle: string, width: number, { jpeg = false, page = 0 } = {}): Promise<Picture> {
      const widths: readonly number[] = page ? LEAF_WIDTHS : PICTURE_WIDTHS
      if (!widths.includes(width)) throw missing()
      const both = await sourcesOf(handle)
      const source = page ? both.itself : both.shown
      if (page && !(Number.isInteger(page) && page >= 1 && page <= source.pages)) throw missing()
      const key = `${source.sha256} ${width} ${jpeg} ${page}`
      const known = kept.get(key) ?? draw(source, width, { jpeg, page })
      kept.set(key, known)
      known.catch((error: unknown) => {
        // That it cannot be drawn is remembered until its bytes are others: each try takes the one who draws for seconds. What else failed
        // may do the next time.
        if (!(error instanceof Problem && error.status === 422)) kept.delete(key)
      })
      return known
    },
  }
}
export type Pictures = ReturnType<typeof createPictures>
