import { createHash } from 'node:crypto'
import { and, eq, lt, notInArray } from 'drizzle-orm'
import { represent, type Representation } from '../../../core/http/respond'
import { MOST_CUTS, filesOfOwn, type OwnCut, type OwnTypeface } from '../../../core/look/ownTypeface'
import { Problem } from '../../../core/problem'
import { formatSize } from '../../../core/files/size'
import type { Database } from '../../db/connection'
import { fontFiles } from '../../db/schema'
import type { Store } from '../../store/store'
import type { FontMessage, FontTask } from '../../workers/font'
import { getFile } from '../files/items'
import type { LookService } from '../looks/looks'
import { createAsker, workerScript } from '../workerHost'

/** Milliseconds one may take to be read. */
const PATIENCE = 180_000
/** Bytes of a font: those with all letters of Chinese have some 20 MB. */
const MOST = 30_000_000
/** Days that fonts are kept which no style names: a change of style can be undone. */
const KEPT = 30
const DAY = 24 * 60 * 60 * 1000

/** Pages set in them are shown in frames that are nobody's, too, the preview among them. */
const FIELDS = {
  'Cache-Control': 'public, max-age=31536000, immutable',
  'Access-Control-Allow-Origin': '*',
  'Cross-Origin-Resource-Policy': 'cross-origin',
  'X-Content-Type-Options': 'nosniff',
}

const shortHash = (content: Uint8Array | string, length: number) => createHash('sha256').update(content).digest('hex').slice(0, length)

/** Typefaces of the owner's own: fonts of the library, made ready for pages and kept as they were when they were taken. */
export function createTypefaces(db: Database, store: Store, looks: LookService) {
  const reader = createAsker<FontTask, FontMessage>(workerScript('font'), PATIENCE)

  async function read(file: string): Promise<Exclude<FontMessage, { trouble: string }>> {
    const { sha256, size, title } = await getFile(db, file)
    const refuse = (trouble: string) => new Problem(422, `“${title}” cannot be taken.`, trouble, { field: 'file' })
    if (size > MOST) throw refuse(`A font has at most ${formatSize(MOST)}.`)
    const answer = await store
      .withFile(sha256, path => reader.ask({ path }))
      .catch((error: Error): FontMessage => ({ trouble: error.message }))
    if ('trouble' in answer) throw refuse(answer.trouble)
    return answer
  }

  /** Fonts that were taken and are in no style go, in time. */
  async function forgetUnused(): Promise<void> {
    const used = filesOfOwn((await looks.style()).own)
    const old = lt(fontFiles.made, new Date(Date.now() - KEPT * DAY))
    await db.delete(fontFiles).where(used.length ? and(old, notInArray(fontFiles.name, used)) : old)
  }

  /** The bytes of one of the fonts that are served, as WOFF2; undefined where there is none of that name. */
  async function bytesOf(name: string): Promise<Uint8Array | undefined> {
    const [row] = await db.select({ bytes: fontFiles.bytes }).from(fontFiles).where(eq(fontFiles.name, name))
    return row?.bytes
  }

  return {
    /**
     * Makes a font of the library ready for pages.
     *
     * @param file its identity
     * @param beside a typeface that it is the other cut of, bold or regular
     * @throws Problem 404, or 422 for what is no font, or may not be put into pages
     */
    async take(file: string, beside?: OwnTypeface): Promise<OwnTypeface> {
      if (beside && beside.cuts.length >= MOST_CUTS)
        throw new Problem(422, `“${beside.name}” has all its fonts.`, 'Take this one as a typeface by itself.', { field: 'file' })
      const { name, generic, fallback, least, most, parts } = await read(file)
      if (beside?.cuts.some(cut => cut.least <= most && least <= cut.most))
        throw new Problem(422, `“${beside.name}” has these weights already.`, 'Choose its bold font, or its regular one.', {
          field: 'file',
        })
      const rows = parts.map(({ part, bytes }) => ({ part, name: shortHash(bytes, 32), bytes }))
      await forgetUnused()
      const made = new Date()
      for (const row of rows)
        await db
          .insert(fontFiles)
          .values({ name: row.name, bytes: row.bytes, made })
          .onConflictDoUpdate({ target: fontFiles.name, set: { made } })
      const cut: OwnCut = { least, most, parts: rows.map(row => ({ part: row.part, file: row.name })) }
      const cuts = [...(beside?.cuts ?? []), cut]
      const id = `own-${shortHash(JSON.stringify(cuts), 12)}` as const
      // What stands in for it is measured by its regular font.
      return beside && beside.cuts[0]!.least < least ? { ...beside, id, cuts } : { id, name: beside?.name ?? name, generic, fallback, cuts }
    },

    bytesOf,

    /**
     * What is sent for one of the fonts.
     *
     * @throws Problem 404
     */
    async find(name: string): Promise<{ bytes: Buffer; representation: Representation }> {
      const found = await bytesOf(name)
      if (!found) throw new Problem(404, 'There is no such font.', 'It may have been taken out of the style of the site.')
      const bytes = Buffer.from(found)
      return { bytes, representation: represent({ size: bytes.length, contentType: 'font/woff2', etag: `"${name}"`, extra: FIELDS }) }
    },

    close: () => reader.close(),
  }
}
export type Typefaces = ReturnType<typeof createTypefaces>
