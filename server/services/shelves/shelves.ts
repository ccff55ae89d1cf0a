import type { FileItem } from '../../../core/files/fileItem'
import { fileQuerySchema } from '../../../core/files/query'
import { flat, listingOf, placedIn, type Listing } from '../../../core/page/listing'
import type { ShelfSource } from '../../../core/page/schema'
import { TAKE_ALL, shelfQuery } from '../../../core/page/shelf'
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
    if (source.kind === 'folder') {
      const tree = await library.folders.tree()
      if (!tree.get(source.id)) return flat([])
      const query = fileQuerySchema.parse(shelfQuery(source))
      const { items, total } = await library.list({ ...query, ...(whole && { limit: Infinity }) })
      const files = items.filter(file => !isOut(file))
      return { ...listingOf(source.id, tree, files), ...(total > items.length && { total }) }
    }
    const there = new Map((await library.byId(source.ids)).map(file => [file.id, file]))
    return flat(source.ids.flatMap(id => there.get(id) ?? []).filter(file => !isOut(file)))
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
      const own = (source.kind === 'folder' ? await library.folders.nameOf(source.id) : undefined) ?? live.pageTitle
      const zip = await pack(picked, nameToSave('files.zip', zipName || own))
      return { zip, files: picked.map(({ item }) => item) }
    },
  }
}
export type Shelves = ReturnType<typeof createShelves>
