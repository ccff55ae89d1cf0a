import { and, eq } from 'drizzle-orm'
import type { ComparedEdition, Comparison } from '../../../core/editions/comparison'
import { doubtsAbout } from '../../../core/editions/doubts'
import { titleFromFileName } from '../../../core/files/fileName'
import type { EditionChange, EditionItem, FileItem } from '../../../core/files/fileItem'
import { typeTag } from '../../../core/files/mediaType'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import type { CompareMessage, CompareTask } from '../../workers/compare'
import type { Database, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { blobs, editions, files } from '../../db/schema'
import { freeHandle } from '../files/handles'
import { nextPosition } from '../files/position'
import type { LibraryService } from '../library/library'
import { unsetEdition } from '../library/showing'
import type { SearchIndex } from '../reading/searchIndex'
import { createAsker, workerScript } from '../workerHost'

const PATIENCE = 30_000

/**
 * Editions: what is said of them and who gets them; those that wait are held against the one visitors get, and then taken, thrown away or
 * made files of their own.
 */
export function createEditions(db: Database, library: LibraryService, texts: SearchIndex) {
  const comparer = createAsker<CompareTask, CompareMessage>(workerScript('compare'), PATIENCE)

  async function one(id: string, number: number): Promise<ComparedEdition & { reading: boolean }> {
    const edition = (await library.editions(id)).find(each => each.number === number)
    if (!edition) throw notFound('edition')
    const [blob] = await db
      .select({ facts: blobs.facts, preview: blobs.preview, reading: blobs.reading })
      .from(blobs)
      .where(eq(blobs.sha256, edition.sha256))
    return { ...edition, tag: typeTag(edition.mediaType), facts: blob!.facts, preview: blob!.preview, reading: blob!.reading === 'waiting' }
  }

  /** @throws Problem 404, or 409 for the edition that visitors get */
  async function waiting(tx: Queryable, id: string, number: number): Promise<{ file: FileItem; edition: EditionItem }> {
    const file = await library.get(id, tx)
    const edition = (await library.editions(id, tx)).find(each => each.number === number)
    if (!edition) throw notFound('edition')
    if (file.edition === number) throw new Problem(409, `Visitors get edition ${number} now.`, 'Show them another edition first.')
    return { file, edition }
  }

  return {
    get: one,

    /**
     * Holds an edition against the one that visitors get.
     *
     * @throws Problem 404
     */
    async compare(id: string, number: number): Promise<Comparison> {
      const [now, next] = [await one(id, (await library.get(id)).edition), await one(id, number)]
      const [before, after] = [await texts.parts(now.sha256), await texts.parts(next.sha256)]
      const compared = now.reading || next.reading || (!before.length && !after.length) ? undefined : await comparer.ask({ before, after })
      return { now, next, texts: compared, reading: now.reading || next.reading, doubts: doubtsAbout(now, next, compared) }
    },

    /**
     * Changes what is said of an edition, and whether visitors get it.
     *
     * @throws Problem 404
     */
    async change(id: string, number: number, changed: EditionChange): Promise<void> {
      if (anyGiven(changed)) {
        await db.transaction(async tx => {
          const known = await tx
            .update(editions)
            .set(changed)
            .where(and(eq(editions.fileId, id), eq(editions.number, number)))
            .returning({ number: editions.number })
          if (!known.length) throw notFound('edition')
          if (changed.withdrawn) await unsetEdition(tx, id, number)
        })
      }
    },

    /** Throws an edition away that visitors do not get. */
    async discard(id: string, number: number): Promise<void> {
      await db.transaction(async tx => {
        await waiting(tx, id, number)
        await tx.delete(editions).where(and(eq(editions.fileId, id), eq(editions.number, number)))
        await unsetEdition(tx, id, number)
      })
    },

    /** Makes an edition that visitors do not get a file of its own, beside the one it was put on. */
    async split(id: string, number: number): Promise<FileItem> {
      const own = newId()
      await db.transaction(async tx => {
        const { file, edition } = await waiting(tx, id, number)
        await tx.insert(files).values({
          id: own,
          title: titleFromFileName(edition.fileName).slice(0, 200),
          handle: await freeHandle(tx, edition.fileName),
          edition: 1,
          folder: file.folder,
          position: await nextPosition(tx, file.folder),
          gate: file.gate,
        })
        await unsetEdition(tx, id, number)
        await tx
          .update(editions)
          .set({ fileId: own, number: 1 })
          .where(and(eq(editions.fileId, id), eq(editions.number, number)))
      })
      return library.get(own)
    },

    close: () => comparer.close(),
  }
}
export type Editions = ReturnType<typeof createEditions>
