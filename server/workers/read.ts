import { parentPort } from 'node:worker_threads'
import { isDiskFull } from '../../core/diskFull'
import type { Facts } from '../../core/files/fileItem'
import type { Programs } from '../../core/files/programs'
import { withoutPlaces } from '../../core/files/withoutPlaces'
import { wordsOf } from '../../core/find/fold'
import { comeAfterVisitors } from './courtesy'
import { readerFor } from './readers'
import { withPrograms } from './readers/withPrograms'
import { Unreadable, type Part, type Sink } from './readers/reader'

/** A blob to look into, and where the picture of its first page goes. */
export interface ReadTask {
  path: string
  mediaType: string
  picture: string
  /** where the pages of an office document go, as a PDF */
  pages: string
  /** what the machine has to read more with */
  programs: Programs
}
/** A part with its different words, folded. */
export interface ReadPart extends Part {
  words: string[]
}
export type ReadMessage =
  /** some parts; the next come when "on" is answered */
  { parts: ReadPart[] } | { facts: Facts; picture: boolean; /** why it could not be read whole */ trouble?: string }

/** Characters and parts of one file that are found by their words; enough for a thousand-page manual. */
const MOST_TEXT = 20_000_000
const MOST_PARTS = 20_000
/** Characters handed over at a time, so that no writing of them takes long. */
const BATCH = 12_000
/** Characters of the beginning that stand for a file without a picture. */
const EXCERPT = 500

const toPart = ({ part, body }: Part): ReadPart => {
  // PostgreSQL keeps no NUL in text.
  const text = body.replaceAll('\0', ' ').toWellFormed()
  return { part, body: text, words: [...new Set(wordsOf(text))] }
}

/** Reads one file; what is found in it is handed on in batches. */
export async function read(
  { path, mediaType, picture, pages, programs }: ReadTask,
  handOn: (parts: ReadPart[]) => Promise<void>,
): Promise<Exclude<ReadMessage, { parts: unknown }>> {
  let batch: ReadPart[] = []
  let [characters, count, waiting] = [0, 0, 0]
  const flush = async () => {
    if (batch.length) await handOn(batch)
    batch = []
    waiting = 0
  }
  const sink: Sink = {
    facts: {},
    picture,
    pictured: false,
    pages,
    programs,
    async take(part, body) {
      if (body.trim()) {
        if (!count && !sink.pictured) sink.facts.excerpt = body.trim().slice(0, EXCERPT).toWellFormed().replaceAll('\0', ' ')
        batch.push(toPart({ part, body }))
        waiting += body.length
        characters += body.length
        count++
      }
      if (waiting > BATCH) await flush()
      return characters < MOST_TEXT && count < MOST_PARTS
    },
  }
  try {
    await withPrograms(mediaType, readerFor(mediaType))(path, sink)
    await flush()
  } catch (error) {
    if (!(error instanceof Error)) throw error
    const trouble =
      error instanceof Unreadable
        ? error.message
        : isDiskFull(error)
          ? 'The disk was full, and could not keep its picture. Free some space, then read it again.'
          : `It could not be read: ${withoutPlaces(error.message)}`
    await flush()
    return { facts: sink.facts, picture: sink.pictured, trouble }
  }
  return { facts: sink.facts, picture: sink.pictured }
}

if (parentPort) {
  const port = parentPort
  comeAfterVisitors()
  let goOn = () => {}
  port.on('message', async (message: ReadTask | 'on') => {
    if (message === 'on') return goOn()
    port.postMessage(
      await read(message, parts => {
        const answered = new Promise<void>(resolve => (goOn = resolve))
        port.postMessage({ parts } satisfies ReadMessage)
        return answered
      }),
    )
  })
}
