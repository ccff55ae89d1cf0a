import type { FileItem } from '../../../core/files/fileItem'
import { fileQuerySchema } from '../../../core/files/query'
import { arranged } from '../../../core/shelf/arrange'
import { flat, placedIn, type Listing } from '../../../core/shelf/listing'
import { TAKE_ALL } from '../../../core/shelf/shelf'
import { asksForAnything, foldersOf, shelfQuery, type ShelfSource } from '../../../core/shelf/shelfSource'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import type { LaidOut, Pack } from '../bundles/packing'
import { nameToSave } from '../delivery/delivery'
import { isOut } from '../files/items'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'

/** What shelves list, and zips of what visitors pick from them. */
export function createShelves(pages: PageService, library: LibraryService, pack: Pack) {
  /**
   * What a shelf shows visitors, in its order; nothing of a folder that is gone.
   *
   * @param whole all of it, where it has more than a page is to show
   */
  async function listed(source: ShelfSource, whole = false): Promise<Listing<FileItem>> {
    const byId = async (ids: string[]) => {
      const there = new Map((await library.byId(ids)).map(file => [file.id, file]))
      return ids.flatMap(id => there.get(id) ?? []).filter(file => !isOut(file))
    }
    if (source.kind === 'files') return flat(await byId(source.ids))
    const tree = await library.folders.tree()
    if (source.kind === 'folder' && !tree.get(source.id)) return flat([])
    // Nothing asked for is nothing given, not all of the library.
    if (source.kind === 'found' && !asksForAnything(source)) return flat([])
    const query = fileQuerySchema.parse(shelfQuery(source, Date.now()))
    const { items, total } = await library.list({ ...query, ...(whole && !source.most && { limit: Infinity }) })
    const files = items.filter(file => !isOut(file))
    return arranged(source, tree, { files, pinned: await byId(source.pinned ?? []), total: total - (items.length - files.length) })
  }

  /** What the zip of a shelf is called where its owner did not say. */
  const nameOf = async (source: ShelfSource): Promise<string | undefined> => {
    const [folder, ...more] = foldersOf(source)
    return folder && !more.length ? library.folders.nameOf(folder) : undefined
  }

  return {
    listed,

    /**
     * Lays out a zip of files picked from the shelf of a live page, or of all of it.
     *
     * @throws Problem 404 where no visitor sees such a shelf, or it is not to be picked from; 410 where nothing that
     * was picked is on it any more; 422 where nothing was picked
     */
    async zip(placement: string, picks: string[] | typeof TAKE_ALL): Promise<{ zip: LaidOut; files: FileItem[] }> {
      const live = await pages.liveShelf(placement)
      if (!live?.shelf.pick || !live.shelf.source) throw new VisitorProblem(404, 'noShelf')
      if (!picks.length) throw new VisitorProblem(422, 'noneTicked')
      const { source, zipName } = live.shelf
      const offered = placedIn(await listed(source, true))
      const picked = picks === TAKE_ALL ? offered : offered.filter(({ item }) => picks.includes(item.id))
      if (!picked.length) throw new VisitorProblem(410, 'filesGone')
      const zip = await pack(picked, nameToSave('files.zip', zipName || ((await nameOf(source)) ?? live.pageTitle)))
      return { zip, files: picked.map(({ item }) => item) }
    },
  }
}
export type Shelves = ReturnType<typeof createShelves>
