import { formatSize } from '../../files/size'
import { at, type Check } from '../check'

/** So many in the four weeks before are no chance. */
const USUAL = 20
/** Fewer may break off anywhere. */
const MANY = 5
/** Bytes of a file that takes a while to come. */
const LARGE = 2_000_000

/** Buttons and links that were used, until their page went live anew. */
export const fallenSilent: Check = {
  name: 'fallen-silent',
  cost: 'hard',
  title: 'Not used any more',
  why: 'What changed may be its words, its place on the page, or what stands around it.',
  look: ({ uptake }, seen) =>
    seen.flatMap(one => {
      const known = uptake(one.placement)
      if (!known || known.before < USUAL || known.since > 0) return []
      return [
        at(one, {
          words: `It was used ${known.before} times in the four weeks before the page went live anew on ${known.day}, and not once since.`,
          detail: `silent ${known.day}`,
        }),
      ]
    }),
}

/** Files of which most downloads do not arrive. */
export const breaksOff: Check = {
  name: 'breaks-off',
  cost: 'hard',
  title: 'Breaks off on the way',
  why: 'Visitors wait and have nothing. A smaller file arrives, and so does one in parts.',
  look: ({ arrivals }, seen) =>
    seen.flatMap(one => {
      const known = one.file && one.file.size >= LARGE ? arrivals(one.file.id) : undefined
      if (!known || known.broken < MANY || known.broken < known.taken) return []
      return [
        at(one, {
          words: `In the last four weeks ${known.broken} downloads of it broke off and ${known.taken} arrived. It has ${formatSize(one.file!.size)}.`,
          detail: one.file!.id,
        }),
      ]
    }),
}
