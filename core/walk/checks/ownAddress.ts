import { at, type Check } from '../check'
import type { Found } from '../finding'

/** Addresses of this site, of today or of an earlier domain, that were written out instead of leading to the thing itself. */
export const ownAddress: Check = {
  name: 'own-address',
  cost: 'misled',
  title: 'An address of this site, written out',
  why: 'It breaks when the site moves to another address. A button that leads to the file or page itself goes on working.',
  look: ({ ownPlace }, seen) =>
    seen.flatMap((one): Found[] => {
      const { target, placement } = one
      if (target.kind !== 'address') return []
      const place = ownPlace(target.href)
      if (!place) return []
      if (place === 'nothing')
        return [
          at(one, {
            words: `Nothing is at ${target.href}, which is an address of this site.`,
            detail: target.href,
            mend: { kind: 'off', placement },
            act: 'Take it off',
          }),
        ]
      return [
        at(one, {
          words: `It leads to ${target.href}, which is “${place.title}”.`,
          detail: target.href,
          mend: { kind: 'target', placement, target: place.target },
          act: `Lead it to “${place.title}” itself`,
        }),
      ]
    }),
}
