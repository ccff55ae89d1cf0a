import type { FileItem, Use } from '../../../core/files/fileItem'
import type { FileFilter } from '../../../core/files/query'
import { takenDays } from '../../../core/files/query'
import type { Selection } from '../../../core/files/selection'
import { Tree } from '../../../core/folders/folderTree'
import type { JobItem } from '../../../core/jobs/jobItem'
import { Problem, notFound } from '../../../core/problem'
import {
  FILE_RIGHT_WORDS,
  SITE_RIGHT_WORDS,
  mayEverywhere,
  mayInPath,
  mayReadPages,
  maySite,
  maySomewhere,
  type FileRight,
  type Holder,
  type SiteRight,
} from '../../../core/rights/rights'
import type { TimedAct } from '../../../core/timetable/timedItem'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { files, folders } from '../../db/schema'
import type { Events } from '../events'
import { kept } from '../kept'

/** Folders whose files are seen, `null` for the top of the library; undefined where all are. */
export type Sight = ReadonlySet<string | null> | undefined

const refused = (words: string) => new Problem(403, `You may not ${words} here.`, 'Ask the owner of the site for it.')

/**
 * The one check of what may be done at the desk.
 *
 * @param holder whose rights are asked about; null for an owner, and for commands on this machine
 * @param by their e-mail; empty for a command
 */
export function createAccess(db: Database, events: Events) {
  // With those in the bin: what lay in them is still somebody's.
  const tree = kept(async () => new Tree(await db.select({ id: folders.id, parent: folders.parent }).from(folders)))
  events.on('folders', tree.forget)

  async function of(holder: Holder, by: string) {
    const all = await tree.get()
    const pathOf = (folder: string | null) => all.pathTo(folder).map(({ id }) => id)
    const mayIn = (right: FileRight, folder: string | null) => mayInPath(holder, right, pathOf(folder))
    const sight: Sight = mayEverywhere(holder, 'see')
      ? undefined
      : new Set(holder!.files.flatMap(({ folder }) => (folder === null ? [] : all.below(folder).map(({ id }) => id))))
    const sees = (folder: string | null) => !sight || sight.has(folder)
    /** What lies in the library: the folder it lies in decides. */
    function must(right: FileRight, folder: string | null, what: string): void {
      if (!sees(folder)) throw notFound(what)
      if (!mayIn(right, folder)) throw refused(FILE_RIGHT_WORDS[right])
    }

    const access = {
      /** every right there is, those to come included */
      owner: holder === null,
      by,
      sight,
      may: (right: SiteRight) => maySite(holder, right),
      somewhere: (right: FileRight) => maySomewhere(holder, right),
      readsPages: mayReadPages(holder),
      sees,

      /** @throws Problem 403 */
      must(right: SiteRight): void {
        if (!maySite(holder, right)) throw refused(SITE_RIGHT_WORDS[right])
      },

      /** @throws Problem 403 */
      mustBeOwner(): void {
        if (holder !== null) throw new Problem(403, 'Only an owner can do that.', 'Ask the owner of the site.')
      },

      /** @throws Problem 403 where it may not be done in the whole library */
      mustEverywhere(right: FileRight): void {
        if (!mayEverywhere(holder, right))
          throw new Problem(
            403,
            `This needs the right to ${FILE_RIGHT_WORDS[right]} in the whole library.`,
            'Ask the owner of the site for it.',
          )
      },

      /**
       * For what comes to lie in a folder, or is done to the files right in it.
       *
       * @throws Problem 404 where the folder is not seen, 403 where it may not be done there
       */
      mustPlace: (right: FileRight, folder: string | null): void => must(right, folder, 'folder'),

      /** The same for a folder itself: its name and place are matters of the folder it lies in. */
      mustFolders(right: FileRight, ids: readonly string[]): void {
        for (const id of ids) {
          if (!sees(id)) throw notFound('folder')
          const folder = all.get(id)
          // What is not there is told by whoever looks for it.
          if (folder && !mayIn(right, folder.parent)) throw refused(FILE_RIGHT_WORDS[right])
        }
      },

      /** @throws Problem 404 where one is not seen, 403 where it may not be done with one */
      async mustFiles(right: FileRight, ids: readonly string[]): Promise<void> {
        if (mayEverywhere(holder, right) || !ids.length) return
        const rows = await db.select({ folder: files.folder }).from(files).where(among(files.id, ids))
        for (const { folder } of rows) must(right, folder, 'file')
      },

      /** @throws Problem 404 where something of a selection is not seen */
      async mustSee({ files: fileIds, folders: folderIds }: Selection): Promise<void> {
        for (const id of folderIds) must('see', id, 'folder')
        await access.mustFiles('see', fileIds)
      },

      /** @throws Problem 403 or 404 where it may not be set to happen */
      async mustTime(act: TimedAct): Promise<void> {
        if (act.kind === 'entry') return access.must('publish')
        if (act.kind === 'signpost') access.must('design')
        await access.mustFiles(act.kind === 'signpost' ? 'see' : 'renew', [act.file])
      },

      /** Of things that stand for files, those whose files are seen; one that stands for none is. */
      async seen<Thing>(things: Thing[], fileOf: (thing: Thing) => string | undefined): Promise<Thing[]> {
        if (!sight || !things.length) return things
        const rows = await db
          .select({ id: files.id, folder: files.folder })
          .from(files)
          .where(
            among(
              files.id,
              things.flatMap(thing => fileOf(thing) ?? []),
            ),
          )
        const visible = new Set(rows.filter(({ folder }) => sees(folder)).map(({ id }) => id))
        return things.filter(thing => {
          const file = fileOf(thing)
          return file === undefined || visible.has(file)
        })
      },

      /** Places as they may be told: what is only drafted is for those who work on pages. */
      uses: (uses: Use[]): Use[] => (access.readsPages ? uses : uses.filter(({ live, pageId }) => live || pageId === null)),

      /** Folders as they may be told: the topmost that are seen lie at the top. */
      folders: <Folder extends { id: string; parent: string | null }>(items: Folder[]): Folder[] =>
        sight
          ? items.filter(({ id }) => sight.has(id)).map(item => ({ ...item, parent: sight.has(item.parent) ? item.parent : null }))
          : items,

      /**
       * A filter of files as it may be asked.
       *
       * @throws Problem 404 where its folder is not seen, 403 where its order would tell how often files were taken
       */
      filter<Filter extends Pick<FileFilter, 'folder' | 'sort'>>(filter: Filter): Filter {
        if (filter.folder && !sees(filter.folder)) throw notFound('folder')
        if (filter.sort.endsWith('downloads') || takenDays(filter.sort)) access.must('downloads')
        return filter
      },

      /** Whether a job was begun by who asks; all are an owner's. */
      isOwn: (job: Pick<JobItem, 'by'>): boolean => holder === null || job.by === by,

      /** Files as they may be told: those that are seen, and how often they were taken only to who may see that. */
      shown<Shown extends Pick<FileItem, 'folder' | 'downloads'>>(items: readonly Shown[]): Shown[] {
        const visible = sight ? items.filter(({ folder }) => sees(folder)) : [...items]
        return maySite(holder, 'downloads') ? visible : visible.map(item => ({ ...item, downloads: 0 }))
      },
    }
    return access
  }

  return { of }
}
export type AccessService = ReturnType<typeof createAccess>
export type Access = Awaited<ReturnType<AccessService['of']>>
