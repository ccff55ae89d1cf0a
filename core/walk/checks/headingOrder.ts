import { headingsOf } from '../headings'
import type { Check } from '../check'
import type { Found } from '../finding'

/** Headings that leave out a level; the page's title is the first (WCAG 2.2, 1.3.1; WAI technique G141). */
export const headingOrder: Check = {
  name: 'heading-order',
  cost: 'hard',
  title: 'A heading that leaves out a level',
  why: 'Who has the page read out finds the way by its headings, and looks for the level that is missing (WCAG 2.2, 1.3.1).',
  look({ document, edge }) {
    // What stands above an edge differs from page to page.
    let before = edge ? 4 : 1
    return headingsOf(document).flatMap(({ level, words }, heading): Found[] => {
      const expected = before + 1
      before = level
      if (level <= expected) return []
      // What follows is judged as it stands once this one is mended.
      before = expected
      return [
        {
          label: words,
          words: `It is of level ${level}, and what is above it of level ${expected - 1}.`,
          detail: `${heading} ${level}`,
          mend: { kind: 'level', heading, level: expected as 2 | 3 | 4 },
          act: `Make it level ${expected}`,
        },
      ]
    })
  },
}
