import { typeTag } from '../../files/mediaType'
import { formatSize } from '../../files/size'
import { at, type Check } from '../check'
import { gateBehind } from './gates'
import type { WalkedFile } from '../facts'

/** Why a visitor does not get a file as it is in the library; undefined where they do. */
function trouble({ answer, mediaType, size }: WalkedFile): string | undefined {
  if (!answer) return undefined
  if (answer.status === 0) return 'The server gave no answer.'
  if (answer.status === 503) return 'Its stored bytes are missing or damaged. Put the file in again, or verify the store in Setup.'
  if (answer.status !== 200) return `The server answers ${answer.status} instead of giving the file.`
  if (answer.whole === false)
    return 'The bytes that arrive are not those that were put in. Verify the store in Setup, or put the file in again.'
  if (answer.size !== size) return `${formatSize(answer.size)} arrive instead of ${formatSize(size)}.`
  if (answer.mediaType !== mediaType) return `It arrives as ${typeTag(answer.mediaType)} instead of ${typeTag(mediaType)}.`
  return undefined
}

/** Files that a visitor asked for and did not get as they are. */
export const answers: Check = {
  name: 'answers',
  cost: 'blocked',
  title: 'Does not arrive',
  why: 'A visitor who clicks it gets an error, or something else than the file.',
  look: (facts, seen) =>
    seen.flatMap(one => {
      const { signpost } = facts
      const { file, target } = one
      // Where nobody gets through, that is said by itself.
      if (gateBehind(facts, one)?.closed) return []
      const words =
        file && (trouble(file) ?? (target.kind === 'signpost' ? trouble({ ...file, answer: signpost(target.id)?.answer }) : undefined))
      return words ? [at(one, { words, detail: `${file.id} ${file.edition} ${words}` })] : []
    }),
}
