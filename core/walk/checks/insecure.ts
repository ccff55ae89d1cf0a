import { at, type Check } from '../check'
import type { Found } from '../finding'

/** Outside addresses that are not encrypted. */
export const insecure: Check = {
  name: 'insecure',
  cost: 'hard',
  title: 'An address without encryption',
  why: 'Browsers warn of http addresses, or refuse to load from them. Nearly every site answers at https as well (common practice).',
  look: ({ ownPlace }, seen) =>
    seen.flatMap((one): Found[] => {
      const { target, placement } = one
      if (target.kind !== 'address' || !target.href.toLowerCase().startsWith('http:') || ownPlace(target.href)) return []
      const href = target.href.replace(/^http:/i, 'https:')
      return [
        at(one, {
          words: `It leads to ${target.href}.`,
          detail: target.href,
          mend: { kind: 'target', placement, target: { kind: 'address', href } },
          act: 'Use https',
        }),
      ]
    }),
}
