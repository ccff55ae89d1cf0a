import type { FileItem } from '../../../core/files/fileItem'
import { nearestSaid } from '../../../core/see/said'
import type { Events } from '../events'
import { isOut } from '../files/items'
import { kept } from '../kept'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'
import type { Signposts } from '../signposts/signposts'

/** Says which files visitors may find: those that a live page gives them, and those in folders that are marked for it. */
export function createFindable(pages: PageService, library: LibraryService, signposts: Signposts, events: Events) {
  const offered = kept(async () => {
    const { files, signposts: posts, shelves } = await pages.liveOffers()
    const pointed = [...(await signposts.some(posts)).values()].flatMap(({ file }) => file ?? [])
    return { files: new Set([...files, ...pointed]), shelves }
  })
  const tree = kept(() => library.folders.tree())
  for (const event of ['live', 'uses', 'signposts'] as const) events.on(event, offered.forget)
  events.on('folders', tree.forget)

  /** Whether visitors may find a file, as things are now. */
  async function test(): Promise<(file: FileItem) => boolean> {
    const [{ files, shelves }, folders] = [await offered.get(), await tree.get()]
    const listed = new Set(shelves.flatMap(({ id, below }) => (below === 'no' ? [id] : folders.below(id).map(folder => folder.id))))
    const marked = new Map<string | null, boolean>()
    /** One question a folder, however many files lie in it. */
    const isMarked = (folder: string | null) => {
      const known = marked.get(folder) ?? nearestSaid(null, folder, folders, ({ found }) => found, false)
      marked.set(folder, known)
      return known
    }
    return file => !isOut(file) && (files.has(file.id) || (file.folder !== null && listed.has(file.folder)) || isMarked(file.folder))
  }

  return { test }
}
export type Findable = ReturnType<typeof createFindable>
