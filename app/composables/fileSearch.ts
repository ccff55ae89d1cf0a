import { nextTick } from 'vue'
import { CLOSED_GATE } from '~~/core/gate/gate'
import type { FoundFile } from '~~/core/files/fileItem'

const isOffered = ({ gate }: FoundFile) => gate !== CLOSED_GATE

interface FileAnswer {
  items: FoundFile[]
  total: number
}

/** So many times as many are asked for where some may be left out. */
const MORE = 3

/**
 * Searches files while somebody types; only the last question's answer counts.
 *
 * @param offers files are offered to be led to: what is for the desk alone comes only where it is asked for
 */
export function useFileSearch(limit: number, { types, offers }: { types?: () => readonly string[] | undefined; offers?: boolean } = {}) {
  const library = useLibrary()
  let asked = 0
  let pending: Promise<unknown> = Promise.resolve()

  /** The files found; undefined where a later question has been asked meanwhile, or nothing could be. */
  function search(q: string): Promise<FileAnswer | undefined> {
    const mine = ++asked
    const without = offers && !q.trim()
    const answer = library.search(q, without ? limit * MORE : limit, types?.()).then(
      found => (mine !== asked ? undefined : without ? { ...found, items: found.items.filter(isOffered).slice(0, limit) } : found),
      (error: unknown) => {
        useNotices().refused(error)
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
