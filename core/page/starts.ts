import { newButton, newCard, newPicture, newShelf } from './insert'
import type { Block, ButtonAttrs, PageDocument, PlainBlock } from './schema'

/** What belongs there is said while the page is written on; visitors get it once it is written. */
const p = (ghost: string): PlainBlock => ({ type: 'paragraph', attrs: { ghost } })
const h2 = (ghost: string): PlainBlock => ({ type: 'heading', attrs: { level: 2, ghost } })
const bullets = (...ghosts: string[]): PlainBlock => ({
  type: 'bulletList',
  content: ghosts.map(ghost => ({ type: 'listItem' as const, content: [p(ghost)] })),
})
const button = (label: string, attrs: Partial<ButtonAttrs> = {}) => ({
  type: 'downloadButton' as const,
  attrs: { ...newButton(null, label), ...attrs },
})
const section = (tone: 'tint' | 'deep', ...content: PlainBlock[]): Block => ({
  type: 'section',
  attrs: { tone, padding: 'medium', width: 'text' },
  content,
})
const pageOf = (...content: Block[]): PageDocument => ({ type: 'doc', content })

interface Start {
  words: string
  hint: string
  /** such pages are found by what leads to them: they are no entry of the site's menu by themselves */
  unlisted?: true
  make: () => PageDocument
}

/** Pages to begin with: they say what belongs where, and each place for a file that it waits for one. Nothing unwritten goes live. */
export const STARTS = {
  offer: {
    words: 'One download',
    hint: 'What it is, who it is for, one button',
    unlisted: true,
    make: () =>
      pageOf(
        p('What it is, whom it is for, and how often it is made anew: two or three sentences.'),
        button('Download the list', { note: '{type}, {pages}, {size}' }),
        h2('What is in it: a heading'),
        bullets('The first thing readers look for in it', 'The second', 'What they do not expect, and are glad of'),
        section(
          'tint',
          h2('A question your customers ask'),
          p('Whom they ask, and what they get as an answer.'),
          button('Write to us', { look: 'rim', note: '' }),
        ),
      ),
  },
  resources: {
    words: 'Many downloads',
    hint: 'A shelf that follows a folder, best first',
    make: () =>
      pageOf(
        p('What lies here, whom it helps, and what may be done with it.'),
        h2('A heading for the two or three best'),
        { type: 'fileCard', attrs: { ...newCard(null), look: 'rim' } },
        { type: 'fileCard', attrs: { ...newCard(null), look: 'rim' } },
        h2('A heading for all of them'),
        { type: 'shelf', attrs: newShelf(null) },
      ),
  },
  product: {
    words: 'A product',
    hint: 'Picture, what it does, its papers',
    make: () =>
      pageOf(
        {
          type: 'columns',
          content: [
            {
              type: 'column',
              content: [
                p('What it is for, in two sentences. What it does better than the one before it, in a third.'),
                bullets('How large it is', 'What it needs', 'How long it lasts'),
                button('Data sheet'),
              ],
            },
            { type: 'column', content: [{ type: 'picture', attrs: { ...newPicture(null), size: 'half' } }] },
          ],
        },
        h2('A heading for its papers'),
        button('Manual', { look: 'strap' }),
        button('Safety data sheet', { look: 'strap' }),
        button('Spare parts', { look: 'strap' }),
        section(
          'deep',
          h2('What to do when it breaks: a heading'),
          p('Who repairs it, and what to have at hand.'),
          button('Call the workshop', { look: 'rim', note: '' }),
        ),
      ),
  },
  thanks: {
    words: 'Thank you',
    hint: 'After an order or a class: what to read next',
    unlisted: true,
    make: () =>
      pageOf(
        p('Your thanks, and what to do first.'),
        button('Read this first'),
        h2('A heading for what comes next'),
        { type: 'shelf', attrs: { ...newShelf(null), pick: false } },
        p('Whom to ask where something is missing or unclear.'),
      ),
  },
} as const satisfies Record<string, Start>
export type StartName = keyof typeof STARTS
/** Whether a page that was begun so stands in the menu by itself. */
export const listsItself = (start: StartName | undefined): boolean => !(start && 'unlisted' in STARTS[start])
export const START_NAMES = Object.keys(STARTS) as [StartName, ...StartName[]]
