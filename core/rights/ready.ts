import { FILE_RIGHTS, SITE_RIGHTS, type FileRight, type Rights, type SiteRight } from './rights'

interface ReadySet {
  key: 'puts' | 'library' | 'pages' | 'everything'
  title: string
  words: string
  may: readonly FileRight[]
  site: readonly SiteRight[]
}

/** Sets of rights that most helpers are well served with. */
export const READY_SETS: readonly ReadySet[] = [
  {
    key: 'puts',
    title: 'Puts files in',
    words: 'New files and new editions. Nothing is renamed, moved or deleted.',
    may: ['put', 'renew'],
    site: [],
  },
  {
    key: 'library',
    title: 'Looks after the library',
    words: 'All that can be done with files, and how often they are taken.',
    may: FILE_RIGHTS,
    site: ['downloads'],
  },
  {
    key: 'pages',
    title: 'Writes pages',
    words: 'Pages are written and put live; files are put in and placed.',
    may: ['put', 'renew'],
    site: ['write', 'publish', 'downloads'],
  },
  {
    key: 'everything',
    title: 'Everything but people',
    words: 'All that an owner can do, except to invite others.',
    may: FILE_RIGHTS,
    site: SITE_RIGHTS,
  },
]
export type ReadyKey = ReadySet['key']

/**
 * The rights of a ready set.
 *
 * @param folders where files are dealt with; null for the whole library
 */
export function readyRights(key: ReadyKey, folders: string[] | null): Rights {
  const { may, site } = READY_SETS.find(set => set.key === key)!
  const complete = FILE_RIGHTS.filter(right => right === 'see' || may.includes(right))
  return { files: (folders ?? [null]).map(folder => ({ folder, may: [...complete] })), site: [...site] }
}

const sameRights = (a: readonly string[], b: readonly string[]) => a.length === b.length && a.every(right => b.includes(right))

/** The ready set that rights are, wherever they hold; undefined where they are somebody's own. */
export const readySetOf = ({ files, site }: Rights): ReadySet | undefined =>
  READY_SETS.find(
    ({ may, site: sets }) =>
      sameRights(sets, site) &&
      files.length > 0 &&
      files.every(grant =>
        sameRights(
          grant.may.filter(right => right !== 'see'),
          may.filter(right => right !== 'see'),
        ),
      ),
  )
