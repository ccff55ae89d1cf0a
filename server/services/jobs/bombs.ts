import { formatSize } from '../../../core/files/size'
import { Problem } from '../../../core/problem'
import type { ZipEntry } from '../../workers/readers/archive'

const MOST_FILES = 50_000
/** Above this, a zip that opens to far more than its own size is refused. */
const SUSPECT = 200_000_000
const SUSPECT_RATIO = 200
/** Kept free, so that the database can always write. */
const RESERVE = 64 * 1000 * 1000

/**
 * Looks through the directory of a zip that comes in, before a byte of it is unpacked.
 *
 * @returns how many files are in it
 * @throws Problem where unpacking would fill the disk, or is meant to
 */
export async function refuseBombs(files: AsyncGenerator<ZipEntry>, zipSize: number, free: number): Promise<number> {
  let [count, total, packed] = [0, 0, 0]
  for await (const entry of files) {
    count++
    total += entry.size
    packed += entry.packed
    if (count > MOST_FILES)
      throw new Problem(
        422,
        `The zip holds more than ${MOST_FILES.toLocaleString('en')} files.`,
        'Unpack it on your computer and put in what you need.',
      )
  }
  // Entries that share their bytes let a small zip promise anything.
  if (packed > zipSize || (total > SUSPECT && total > SUSPECT_RATIO * zipSize)) {
    throw new Problem(
      422,
      `The zip has ${formatSize(zipSize)} and would open to ${formatSize(total)}.`,
      'Zips made to fill a disk look like that: it was not unpacked.',
    )
  }
  if (total > free - RESERVE)
    throw new Problem(
      507,
      `The zip opens to ${formatSize(total)}, and the disk has ${formatSize(free)} left.`,
      'Free some space, then unpack it again.',
    )
  return count
}
