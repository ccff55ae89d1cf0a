import { everyBlock } from '../../page/blocks'
import type { Check } from '../check'
import type { Found } from '../finding'

/** Pictures that nobody has put into words (WCAG 2.2, 1.1.1). */
export const pictureWords: Check = {
  name: 'picture-words',
  cost: 'hard',
  title: 'A picture without words',
  why: 'Who does not see it, or whose connection is slow, learns nothing of it (WCAG 2.2, 1.1.1).',
  look: ({ document, file }) =>
    [...everyBlock(document)].flatMap((block): Found[] => {
      if (block.type !== 'picture') return []
      const { placement, alt, decorative, caption } = block.attrs
      const shown = block.attrs.file ? file(block.attrs.file) : undefined
      if (!shown || decorative || alt.trim()) return []
      const words = caption.trim() || shown.title
      return [
        {
          placement,
          label: shown.title,
          words: 'Nothing says what it shows.',
          detail: shown.id,
          mend: { kind: 'alt', placement, alt: words },
          act: `Say “${words}”`,
        },
      ]
    }),
}
