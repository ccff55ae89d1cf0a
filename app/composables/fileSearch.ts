import { nextTick } from 'vue'
import type { FoundFile } from '~~/core/files/fileItem'
import { wordsOf } from './api'

interface FileAnswer {
  items: FoundFile[]
  total: number
}

/** Searches files while somebody types; only the last question's answer counts. */
export function useFileSearch(limit: number, types: () => readonly string[] | undefined = () => undefined) {
  const library = useLibrary()
  let asked = 0
  let pending: Promise<unknown> = Promise.resolve()

  /** The files found; undefined where a later question has been asked meanwhile, or nothing could be. */
  function search(q: string): Promise<FileAnswer | undefined> {
    const mine = ++asked
    const answer = library.search(q, limit, types()).then(
      found => (mine === asked ? found : undefined),
      (error: unknown) => {
        useNotices().say(wordsOf(error), { tone: 'attention' })
        return undefined
      },
    )
    pending = answer
    return answer
  }

  /** Resolves when the answer to the last question is shown. */
  async function settled(): Promise<void> {
    await nextTick()
    await pending
    await nextTick()
  }

  return { search, settled }
}
