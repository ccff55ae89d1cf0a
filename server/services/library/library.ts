import { and, asc, eq } from 'drizzle-orm'
import type { Clash, ClashQuery } from '../../../core/files/clash'
import type { EditionItem, FileChange, FileItem, Use } from '../../../core/files/fileItem'
import { sameName } from '../../../core/folders/folderItem'
import { Problem } from '../../../core/problem'
import type { Connection, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { blobs, bundles, editions, files, retiredHandles } from '../../db/schema'
import type { Store } from '../../store/store'
import type { Events } from '../events'
import type { SearchIndex } from '../reading/searchIndex'
import type { Holders } from '../uses/holders'
import { createBin } from './bin'
import { checkPicture, createDescribing } from './describing'
import { createListing } from './listing'
import { mustBeGate } from '../gates/gates'
import { createFolderService } from './folders'
import { createIntake } from './intake'
import type { KeptTree } from '../files/keptTree'
import { filesById, filesUncounted, filesWithBytes, getFile } from '../files/items'
import { createNaming } from './naming'
import { createPlacing } from './placing'
import { createRegister } from './register'
import { showEditionIn } from './showing'

export type { Arrival } from './intake'

/** The library: files come in, are found, named, described, moved, go to the bin and come back. */
export function createLibraryService({
  connection,
  store,
  holders,
  texts,
  tree,
  events,
}: {
  connection: Pick<Connection, 'db' | 'alone'>
  store: Store
  holders: Holders
  texts: SearchIndex
  tree: KeptTree
  events: Events
}) {
  const { db } = connection
  const register = createRegister(db, events)
  const { list, search, ids, tags, all } = createListing(tree, register, texts)
  const bin = createBin(db, holders)
  const intake = createIntake(connection, store)

  /** @throws Problem 409 where another file has or had the handle */
  async function changeHandle(tx: Queryable, file: FileItem, handle: string): Promise<void> {
    const [redirect] = await tx.select().from(retiredHandles).where(eq(retiredHandles.handle, handle))
    const [holder] = await tx.select({ title: files.title }).from(files).where(eq(files.handle, handle))
    if (holder || (redirect && redirect.fileId !== file.id)) {
      const owner = holder?.title ?? (redirect?.fileId ? (await getFile(tx, redirect.fileId)).title : 'a file that is gone')
      throw new Problem(
        409,
        `/files/${handle} belongs to ${holder || redirect?.fileId ? `"${owner}"` : owner}.`,
        'Choose another address.',
        { field: 'handle' },
      )
    }
    // Going back to a former handle of its own ends that redirect.
    await tx.delete(retiredHandles).where(eq(retiredHandles.handle, handle))
    await tx.insert(retiredHandles).values({ handle: file.handle, fileId: file.id })
    await tx.update(files).set({ handle }).where(eq(files.id, file.id))
  }

  async function editionsOf(id: string, q: Queryable = db): Promise<EditionItem[]> {
    const rows = await q
      .select({ edition: editions, size: blobs.size })
      .from(editions)
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .where(eq(editions.fileId, id))
      .orderBy(asc(editions.number))
    return rows.map(({ edition: { number, fileName, mediaType, sha256, note, pinned, withdrawn, by, created }, size }) => ({
      number,
      fileName,
      mediaType,
      size,
      sha256,
      note,
      pinned,
      withdrawn,
      by,
      created: created.toISOString(),
    }))
  }

  return {
    /** Reads in what lists are made of, so that the first of them is quick. */
    async warm(): Promise<void> {
      const cards = await register.cards()
      for (const column of ['changed', 'title']) cards.sortBy(column)
    },
    ...createPlacing(db),
    ...createDescribing(db),
    folders: createFolderService(db, tree, register),
    list,
    search,
    all,
    ids,
    tags,
    editions: (id: string, tx?: Queryable) => editionsOf(id, tx),
    adviceOn: createNaming(texts, { all, editions: editionsOf }),
    get: (id: string, tx?: Queryable) => getFile(tx ?? db, id),
    byId: (fileIds: string[]) => filesById(db, fileIds),
    /** The same from memory, where all of the library is kept for its lists. */
    async listed(fileIds: string[]): Promise<FileItem[]> {
      const cards = await register.cards()
      return fileIds.flatMap(id => cards.get(id) ?? [])
    },
    byIdUncounted: (fileIds: string[]) => filesUncounted(db, fileIds),
    /** Files outside the bin that hold some bytes, the oldest first. */
    async withBytes(sha256: string): Promise<FileItem[]> {
      const same = (await filesWithBytes(db, [sha256])).filter(file => !file.deleted)
      return same.sort((a, b) => (a.created < b.created ? -1 : 1))
    },
    /** Other files that hold the same bytes. */
    async twins({ id, sha256 }: Pick<FileItem, 'id' | 'sha256'>): Promise<FileItem[]> {
      return sha256 ? (await this.withBytes(sha256)).filter(file => file.id !== id) : []
    },
    uses: async (id: string): Promise<Use[]> => (await holders.places(db, { files: [id], folders: [] })).uses,
    fileOfUpload: intake.fileOfUpload,
    ingest: intake.ingest,
    adoptAll: intake.adoptAll,
    collectBytes: intake.collectBytes,
    setStraysAside: intake.setStraysAside,
    holdBytes: intake.holdBytes,
    remove: bin.remove,
    restore: bin.restore,
    binnedFolders: bin.folders,
    emptyOldBin: bin.emptyOld,
    emptyBin: bin.empty,

    /** Which of some names are taken already where they would go. */
    async clashes({ folder, names }: ClashQuery): Promise<Clash[]> {
      const folders = await tree.get()
      const taken = new Map((await all()).map(file => [`${file.folder}/${file.fileName}`, file]))
      return names.flatMap(name => {
        const path = name.split('/')
        const fileName = path.pop()!
        let at: string | null | undefined = folder
        for (const part of path) at = at === undefined ? undefined : folders.childrenOf(at).find(child => sameName(child.name, part))?.id
        const file = at === undefined ? undefined : taken.get(`${at}/${fileName}`)
        return file ? [{ name, file: { id: file.id, title: file.title, size: file.size, changed: file.changed, uses: file.uses } }] : []
      })
    },

    /** Changes what is said of a file; an old handle redirects from then on. */
    async change(id: string, { handle, fileName, ...said }: FileChange): Promise<FileItem> {
      await db.transaction(async tx => {
        const file = await getFile(tx, id)
        await checkPicture(tx, said.picture)
        await mustBeGate(tx, said.gate)
        if (anyGiven(said)) await tx.update(files).set(said).where(eq(files.id, id))
        if (fileName !== undefined && file.bundle) await tx.update(bundles).set({ fileName }).where(eq(bundles.fileId, id))
        else if (fileName !== undefined)
          await tx
            .update(editions)
            .set({ fileName })
            .where(and(eq(editions.fileId, id), eq(editions.number, file.edition)))
        if (handle !== undefined && handle !== file.handle) await changeHandle(tx, file, handle)
      })
      return getFile(db, id)
    },

    /** Puts an edition back that was the current one, be it withdrawn. */
    async showAgain(id: string, number: number): Promise<void> {
      await db.update(files).set({ edition: number, changed: new Date() }).where(eq(files.id, id))
    },

    /** Makes another edition the current one; every button follows. */
    async showEdition(id: string, number: number): Promise<FileItem> {
      await db.transaction(tx => showEditionIn(tx, id, number))
      return getFile(db, id)
    },
  }
}
export type LibraryService = ReturnType<typeof createLibraryService>
