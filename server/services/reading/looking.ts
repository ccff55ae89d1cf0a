import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Contents } from '../../../core/files/fileContents'
import type { FileItem } from '../../../core/files/fileItem'
import type { Box } from '../../../core/see/sight'
import { Problem } from '../../../core/problem'
import type { Store } from '../../store/store'
import { log } from '../../log'
import type { LookMessage, LookTask } from '../../workers/look'
import { createAsker, workerScript } from '../workerHost'

type DrawTask = { width: number; picture: string; page?: number }

type Paged = Pick<FileItem, 'sha256' | 'facts'>

/** Where the pages of an office document lie, as a PDF, in the folder of what is made of files. */
export const pagesPath = (folder: string, sha256: string) => join(folder, sha256.slice(0, 2), sha256, 'pages.pdf')

const PATIENCE = 30_000
/** Pixels a page of a PDF is drawn wide; narrower ones are made of that. */
const PAGE_WIDTH = 1440

/** Shows what is in a file: its pages, its tables, its entries; in a worker of its own. */
export function createLooking(store: Store, folder: string) {
  const looker = createAsker<LookTask, LookMessage>(workerScript('look'), PATIENCE)

  /** @throws Problem 422 where the file cannot be shown */
  async function run(task: LookTask): Promise<LookMessage> {
    const answer = await looker.ask(task).catch((error: Error): LookMessage => ({ trouble: error.message }))
    if ('trouble' in answer) throw new Problem(422, answer.trouble, 'It can still be downloaded.')
    return answer
  }

  /** The file with the pages: itself, or, of an office document, what was drawn of it. */
  const withPages = <T>({ sha256, facts }: Paged, use: (path: string) => Promise<T>): Promise<T> =>
    facts.drawn ? use(pagesPath(folder, sha256)) : store.withFile(sha256, use)

  const pathOf = (sha256: string, name: string) => join(folder, sha256.slice(0, 2), sha256, `${name}.webp`)

  /** pictures that are drawn just now: who asks for one meanwhile waits for it, and nothing is drawn twice */
  const underway = new Map<string, Promise<Buffer>>()
  function drawn(file: Paged, task: DrawTask): Promise<Buffer> {
    const now = underway.get(task.picture) ?? keptOrDrawn(file, task).finally(() => underway.delete(task.picture))
    underway.set(task.picture, now)
    return now
  }

  /** A picture that was kept, or is drawn now. */
  async function keptOrDrawn(file: Paged, task: DrawTask): Promise<Buffer> {
    const known = await readFile(task.picture).catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return undefined
      throw error
    })
    if (known) return known
    const answer = (await withPages(file, path => run({ ...task, path } as LookTask))) as { drawn: Uint8Array; kept: boolean }
    if (!answer.kept) log.warn({ picture: task.picture }, 'the disk is full: a picture was drawn for once and not kept')
    return Buffer.from(answer.drawn)
  }

  return {
    /** The picture of a page of a document as WebP, counted from 1; kept once it was drawn. */
    page: (file: Paged, number: number): Promise<Buffer> =>
      drawn(file, { page: number - 1, width: PAGE_WIDTH, picture: pathOf(file.sha256, `leaf-${number}`) }),

    /** Where on a page of a document, counted from 1, words begin with one of those looked for (folded). */
    async places(file: Paged, number: number, find: string[]): Promise<Box[]> {
      const answer = await withPages(file, path => run({ path, page: number - 1, find }))
      return (answer as { places: Box[] }).places
    },

    /** A picture as WebP, at most some pixels wide; kept once it was drawn. */
    picture: (sha256: string, width: number): Promise<Buffer> =>
      drawn({ sha256, facts: {} }, { width, picture: pathOf(sha256, `wide-${width}`) }),

    async contents({ sha256, mediaType }: Pick<FileItem, 'sha256' | 'mediaType'>): Promise<Contents> {
      const answer = await store.withFile(sha256, path => run({ path, mediaType }))
      return (answer as { contents: Contents }).contents
    },

    close: () => looker.close(),
  }
}
export type Looking = ReturnType<typeof createLooking>
