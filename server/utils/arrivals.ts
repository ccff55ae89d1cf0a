import type { H3Event } from 'h3'
import type { Arrival } from '../../core/letterbox/arrival'
import { accessOf } from './access'

/** What came in as it may be told: the way to a file only to who sees it in the library. */
export async function arrivalsFor(event: H3Event, items: Arrival[]): Promise<Arrival[]> {
  const access = await accessOf(event)
  const linked = items.flatMap(({ files, answers }) => [...files.flatMap(({ id }) => id ?? []), ...(answers?.id ? [answers.id] : [])])
  const seen = new Set(await access.seen([...new Set(linked)], id => id))
  const shown = (id: string | null) => (id !== null && seen.has(id) ? id : null)
  return items.map(item => ({
    ...item,
    answers: item.answers && { ...item.answers, id: shown(item.answers.id) },
    files: item.files.map(file => ({ ...file, id: shown(file.id) })),
  }))
}
