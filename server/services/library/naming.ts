import { setImmediate as nextTurn } from 'node:timers/promises'
import { LRUCache } from 'lru-cache'
import { monthNamed, nameAdvice, subjectOf, type NameAdvice } from '../../../core/files/nameAdvice'
import type { EditionItem, FileItem } from '../../../core/files/fileItem'
import type { SearchIndex } from '../reading/searchIndex'

interface Neighbours {
  /** every file outside the bin */
  all: () => Promise<FileItem[]>
  editions: (id: string) => Promise<EditionItem[]>
}

/** Names looked at without a pause: visitors wait no longer than for these. */
const AT_ONCE = 50

/** What could be better about a file's name, from the document's own dates and from the files around it. */
export function createNaming(texts: SearchIndex, { all, editions }: Neighbours) {
  const subjects = new LRUCache<string, string>({ max: 50_000 })

  /** Whether another file of the month is about the same. */
  async function hasSister(file: FileItem, month: string): Promise<boolean> {
    const subject = subjectOf(file.fileName)
    let read = 0
    for (const other of await all()) {
      if (other.id === file.id || !(other.facts.dated ?? other.changed).startsWith(month)) continue
      let its = subjects.get(other.fileName)
      if (its === undefined) {
        its = subjectOf(other.fileName)
        subjects.set(other.fileName, its)
        if (++read % AT_ONCE === 0) await nextTurn()
      }
      if (its === subject) return true
    }
    return false
  }

  return async function adviceOn(file: FileItem): Promise<NameAdvice | null> {
    const [own, named] = [file.facts.dated ?? file.changed.slice(0, 10), monthNamed(await texts.beginning(file.sha256))]
    const dated = named && !own.startsWith(named) ? named : own
    const month = dated.slice(0, 7)
    const earlier = (await editions(file.id)).some(edition => edition.number !== file.edition && edition.created.startsWith(month))
    return nameAdvice({ ...file, dated, oftenIssued: earlier || (await hasSister(file, month)) }) ?? null
  }
}
