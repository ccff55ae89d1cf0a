import { newId } from '../../../core/id'
import type { Finding, Mend, PageMend, Reworded } from '../../../core/walk/finding'
import { applyMend } from '../../../core/walk/mend'
import { groupBy } from '../../../core/group'
import { Problem } from '../../../core/problem'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'
import type { Rewritten } from '../pages/rewriting'
import type { Walk } from './walk'

/** Mends that can be taken back, the newest ones. */
const MOST_KEPT = 50

/** What takes a mending back. */
interface Mended {
  rewritten: Rewritten[]
  renamed: { id: string; fileName: string }[]
  restored: string[]
  shown: { id: string; number: number }[]
  published: string[]
}

const NOTHING: Readonly<Mended> = { rewritten: [], renamed: [], restored: [], shown: [], published: [] }

const isPageMend = (mend: Mend): mend is PageMend => !['rename', 'restore', 'edition', 'publish'].includes(mend.kind)

/** Mends findings by the one act each of them has, many at once, and takes that back. */
export function createMending(walk: Walk, pages: PageService, library: LibraryService) {
  const kept = new Map<string, Mended>()

  function keep(done: Mended): string {
    const undo = newId()
    kept.set(undo, done)
    for (const oldest of [...kept.keys()].slice(0, -MOST_KEPT)) kept.delete(oldest)
    return undo
  }

  const mendsOf = (findings: Finding[]) =>
    findings.flatMap(({ page, mend }) => (mend && isPageMend(mend) ? [{ pageId: page.id, mend }] : []))

  async function mendPages(mends: { pageId: string; mend: PageMend }[]): Promise<Rewritten[]> {
    const byPage = groupBy(mends, ({ pageId }) => pageId)
    if (!byPage.size) return []
    return pages.edit([...byPage.keys()], (document, _, pageId) =>
      byPage.get(pageId)!.reduce((mended, { mend }) => applyMend(mended, mend), document),
    )
  }

  return {
    /**
     * @returns how many were mended, and by what that is taken back
     * @throws Problem 409 where none of them can be mended any more
     */
    async mend(keys: string[]): Promise<{ mended: number; undo: string }> {
      const findings = (await walk.some(keys)).filter(finding => finding.mend)
      if (!findings.length) throw new Problem(409, 'That is as it should be by now.', 'Look at the list again.')
      const mends = findings.map(finding => finding.mend!)
      const done: Mended = { ...NOTHING, renamed: [], restored: [], shown: [], published: [] }
      // Publishing can be refused: first, so that nothing else is done then.
      for (const mend of mends) {
        if (mend.kind !== 'publish') continue
        await pages.publish(mend.page)
        done.published.push(mend.page)
      }
      done.rewritten = await mendPages(mendsOf(findings))
      for (const mend of mends) {
        if (mend.kind === 'restore') done.restored.push(...(await library.restore({ files: [mend.file], folders: [] })).files)
        if (mend.kind === 'edition') {
          done.shown.push({ id: mend.file, number: (await library.get(mend.file)).edition })
          await library.showEdition(mend.file, mend.number)
        }
        if (mend.kind !== 'rename') continue
        done.renamed.push({ id: mend.file, fileName: (await library.get(mend.file)).fileName })
        await library.change(mend.file, { fileName: mend.fileName })
      }
      return { mended: findings.length, undo: keep(done) }
    },

    /** Gives buttons and links other words, live and in drafts; what is no longer there is left out. @returns by what that is taken back */
    async reword(labels: Reworded[]): Promise<{ undo: string }> {
      const mends = labels.map(({ page, placement, words }) => ({ pageId: page, mend: { kind: 'words' as const, placement, words } }))
      return { undo: keep({ ...NOTHING, rewritten: await mendPages(mends) }) }
    },

    /** @throws Problem 404 where that was long ago, 409 where a page has been changed since */
    async takeBack(undo: string): Promise<void> {
      const done = kept.get(undo)
      if (!done) throw new Problem(404, 'That can no longer be taken back here.', 'Open the page: its earlier versions are with it.')
      await pages.takeBack(done.rewritten)
      for (const { id, fileName } of done.renamed) await library.change(id, { fileName })
      if (done.restored.length) await library.remove({ files: done.restored, folders: [] }, { despite: true })
      for (const { id, number } of done.shown) await library.showAgain(id, number)
      for (const id of done.published) await pages.unpublish(id, { despite: true })
      kept.delete(undo)
    },
  }
}
export type Mending = ReturnType<typeof createMending>
