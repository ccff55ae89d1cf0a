import { filePath } from '../../../core/page/href'
import type { PageDocument } from '../../../core/page/schema'
import type { Answer } from '../../../core/walk/facts'
import type { Gathering } from './gathering'
import type { Ground } from './ground'
import type { WalkVisitor } from './visitor'

/** Files are asked for a few at a time: visitors come first. */
const AT_ONCE = 4
/** Bytes; larger files are only asked about: verifying the store reads them. */
const MOST_READ = 20_000_000
/** Milliseconds after which bytes that arrived whole are read again. */
const TRUSTED = 7 * 24 * 60 * 60 * 1000

/**
 * Asks for what pages lead to, as a visitor does.
 *
 * @param visitor none where no server runs, as in commands: then nothing is asked
 */
export function createAsking(gathering: Gathering, visitor: WalkVisitor | undefined) {
  /** when bytes last arrived whole, by their SHA-256 */
  const trusted = new Map<string, number>()

  /** Asks for what some documents lead to and `known` has no answer of yet, and puts the answers there, by identity. */
  return async (documents: PageDocument[], ground: Ground, known: Map<string, Answer>): Promise<void> => {
    if (!visitor) return
    const waiting = (await gathering.meet(documents, ground)).filter(file => !known.has(file.id))
    const lane = async () => {
      for (let file = waiting.pop(); file; file = waiting.pop()) {
        const read = file.sha256 && file.size <= MOST_READ && Date.now() - (trusted.get(file.sha256) ?? 0) > TRUSTED
        const cookie = await gathering.passesFor(file)
        const answer = await visitor.ask(filePath(file.handle), { sha256: read ? file.sha256 : undefined, cookie })
        if (answer.whole) trusted.set(file.sha256, Date.now())
        known.set(file.id, answer)
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, lane))
    for (const { id, name, file } of gathering.signpostsOn(documents, ground)) {
      const pointed = file ? ground.items.get(file) : undefined
      if (!known.has(id)) known.set(id, await visitor.ask(`/to/${name}`, { cookie: pointed && (await gathering.passesFor(pointed)) }))
    }
  }
}
export type Asking = ReturnType<typeof createAsking>
