import { nameToSave } from '../../../core/files/fileName'
import type { FileItem } from '../../../core/files/fileItem'
import { fileQuerySchema } from '../../../core/files/query'
import { arranged } from '../../../core/shelf/arrange'
import { flat, placedIn, type Listing } from '../../../core/shelf/listing'
import { TAKE_ALL } from '../../../core/shelf/shelf'
import { asksForAnything, foldersOf, shelfQuery, type ShelfSource } from '../../../core/shelf/shelfSource'
import { GateClosed } from '../../../core/gate/closed'
import type { Speech } from '../../../core/language/speech'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import type { LaidOut, Pack } from '../bundles/packing'
import { isOut } from '../files/items'
import type { Admission, Wanted } from '../gates/guard'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'

/** What shelves list, and zips of what visitors pick from them. */
export function createShelves(pages: PageService, library: LibraryService, pack: Pack) {
  /**
   * What a shelf shows visitors, in its order; nothing of a folder that is gone.
   *
   * @param whole all of it, where it has more than a page is to show
   * @param seen says of each file whether it may be known of; all of them where nothing is said
   */
  async function listed(source: ShelfSource, whole = false, seen?: (file: FileItem) => boolean): Promise<Listing<FileItem>> {
    const isThere = (file: FileItem) => !isOut(file) && (!seen || seen(file))
    const byId = async (ids: string[]) => {
      const there = new Map((await library.byId(ids)).map(file => [file.id, file]))
      return ids.flatMap(id => there.get(id) ?? []).filter(isThere)
    }
    if (source.kind === 'files') return flat(await byId(source.ids))
    const tree = await library.folders.tree()
    if (source.kind === 'folder' && !tree.get(source.id)) return flat([])
    // Nothing asked for is nothing given, not all of the library.
    if (source.kind === 'found' && !asksForAnything(source)) return flat([])
    const query = fileQuerySchema.parse(shelfQuery(source, Date.now()))
    const all = whole && !source.most
    const { items: files, total } = await library.list({ ...query, ...(all && { limit: Infinity }) }, undefined, isThere)
    return arranged(source, tree, { files, pinned: await byId(source.pinned ?? []), total })
  }

  /** What the zip of a shelf is called where its owner did not say. */
  const nameOf = async (source: ShelfSource): Promise<string | undefined> => {
    const [folder, ...more] = foldersOf(source)
    return folder && !more.length ? library.folders.nameOf(folder) : undefined
  }

  return {
    listed,

    /**
     * Lays out a zip of files picked from the shelf of a live page, or of all of it; what stands behind gates that somebody has not passed
     * is left out, and a text in it says so.
     *
     * @param admit lets somebody have something, or throws
     * @throws Problem 404 where no visitor sees such a shelf, or it is not to be picked from; 410 where nothing that
     * was picked is on it any more; 422 where nothing was picked
     */
    async zip(
      placement: string,
      picks: string[] | typeof TAKE_ALL,
      admit: (wanted: Wanted, missing: () => VisitorProblem) => Promise<Admission>,
      speech: Speech,
    ): Promise<{ zip: LaidOut; files: FileItem[]; admissions: Admission[] }> {
      const live = await pages.liveShelf(placement)
      const noShelf = () => new VisitorProblem(404, 'noShelf')
      if (!live?.shelf.pick || !live.shelf.source) throw noShelf()
      await admit({ id: live.pageId, gate: live.gate, folder: null }, noShelf)
      if (!picks.length) throw new VisitorProblem(422, 'noneTicked')
      const { source, zipName } = live.shelf
      const offered = placedIn(await listed(source, true))
      const ticked = new Set(picks)
      const picked = picks === TAKE_ALL ? offered : offered.filter(({ item }) => ticked.has(item.id))
      if (!picked.length) throw new VisitorProblem(410, 'filesGone')
      const admissions: Admission[] = []
      const given: typeof picked = []
      const closed: { title: string; problem: GateClosed }[] = []
      for (const one of picked)
        try {
          admissions.push(await admit(one.item, noShelf))
          given.push(one)
        } catch (error) {
          // What nobody shall know of is not there.
          if (error instanceof GateClosed) closed.push({ title: one.item.title, problem: error })
          else if (!(error instanceof VisitorProblem)) throw error
        }
      // All of it stands behind gates: they are asked at the first.
      if (!given.length) throw closed[0]?.problem ?? new VisitorProblem(410, 'filesGone')
      const left = closed.map(({ title }) => title)
      const texts = left.length
        ? [{ name: `${speech.say('leftOut')}.txt`, body: [speech.say('leftOutDetail'), '', ...left, ''].join('\r\n') }]
        : []
      const zip = await pack(given, nameToSave('files.zip', zipName || ((await nameOf(source)) ?? live.pageTitle)), texts)
      return { zip, files: given.map(({ item }) => item), admissions }
    },
  }
}
export type Shelves = ReturnType<typeof createShelves>
