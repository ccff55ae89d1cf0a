import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Programs } from '../../../core/files/programs'
import { runLimited } from './runLimited'

const SECONDS = 30
const MEMORY = 4_000_000_000
const LARGEST = 100_000_000
/** Seconds into a film after which it mostly has begun. */
const LATEST = 10

/**
 * A still of a film, as PNG: some way in, since many begin in black.
 *
 * @param length of the film in seconds, where it is known
 * @throws Error in a few words where the program fails
 */
export async function takeStill(programs: Programs, path: string, length: number | undefined): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'trough-still-'))
  const still = join(folder, 'still.png')
  const take = (at: number) =>
    runLimited(
      programs,
      programs.film!,
      [
        ...['-nostdin', '-v', 'error', '-threads', '1'],
        // Lists of other files and addresses are none of its business.
        ...['-protocol_whitelist', 'file', '-ss', String(at), '-i', `file:${path}`],
        ...['-an', '-frames:v', '1', '-vf', 'scale=960:-2', '-y', still],
      ],
      { folder, file: path, seconds: SECONDS, memory: MEMORY, largest: LARGEST },
    )
  try {
    await take(length === undefined ? 1 : Math.min(LATEST, length / 5))
    // Shorter than it was said to be: its beginning then.
    return await readFile(still).catch(async () => {
      await take(0)
      return readFile(still)
    })
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}
