import sharp from 'sharp'
import { drawnByOffice, hasStills } from '../../../core/files/programs'
import { drawOfficePages } from '../programs/officePages'
import { takeStill } from '../programs/filmStill'
import { drawPage, readPdf, withPdf } from './pdf'
import { WIDEST, keepPicture, toWebp } from './picture'
import type { Reader, Sink } from './reader'

/** How tall a still is at the most, in pixels. */
const TALLEST = 800

/** What a program could not do is no fault of the file: it is read without, and the console says it. */
async function attempt(what: string, work: () => Promise<void>): Promise<boolean> {
  try {
    await work()
    return true
  } catch (error) {
    console.warn(`${what}: ${(error as Error).message}`)
    return false
  }
}

async function keepStill(path: string, sink: Sink): Promise<void> {
  const still = await toWebp(sharp(await takeStill(sink.programs, path, sink.facts.seconds)), { width: WIDEST, height: TALLEST })
  const { width, height } = await sharp(still).metadata()
  await keepPicture(sink.picture, still)
  sink.facts.cover = { width, height }
  sink.pictured = true
}

async function keepFirstPage(path: string, sink: Sink): Promise<void> {
  await drawOfficePages(sink.programs, path, sink.pages)
  await withPdf(sink.pages, async document => {
    const picture = await (await drawPage(document, 0, WIDEST))()
    const { width, height } = await sharp(picture).metadata()
    await keepPicture(sink.picture, picture)
    sink.facts.cover = { width, height }
    sink.pictured = true
  })
}

/**
 * A reader that has more to show where the machine has programs for it: documents with their pages, tables with a picture of the first,
 * films with a still.
 */
export const withPrograms =
  (mediaType: string, reader: Reader | undefined): Reader =>
  async (path, sink) => {
    const { programs } = sink
    const drawn = programs.office ? drawnByOffice(mediaType) : undefined
    if (drawn === 'pages' && (await attempt('an office document has no pages drawn', () => drawOfficePages(programs, path, sink.pages)))) {
      sink.facts.drawn = true
      return readPdf(sink.pages, sink)
    }
    await reader?.(path, sink)
    if (drawn === 'first page') await attempt('a table has no picture', () => keepFirstPage(path, sink))
    if (programs.film && hasStills(mediaType)) await attempt('a film has no still', () => keepStill(path, sink))
  }
