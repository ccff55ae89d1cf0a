import { ghostsIn } from '../../page/ghosts'
import type { Check } from '../check'

/** Places of a page that was begun with suggestions at which nothing is written yet. */
export const ghosts: Check = {
  name: 'ghosts',
  cost: 'tidy',
  title: 'Something that is still to be written',
  why: 'Visitors do not see the suggestion, but nothing stands there for them either.',
  look: ({ document }) =>
    ghostsIn(document).map((ghost, index) => ({
      label: ghost,
      words: 'Nothing is written there yet. Write it, or take the line away.',
      detail: `${index} ${ghost}`,
    })),
}
