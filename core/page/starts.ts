import { newButton, newCard, newPicture, newShelf } from './insert'
import type { Block, ButtonAttrs, PageDocument, PlainBlock } from './schema'

const p = (text: string): PlainBlock => ({ type: 'paragraph', content: [{ type: 'text', text }] })
const h2 = (text: string): PlainBlock => ({ type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text }] })
const bullets = (...items: string[]): PlainBlock => ({
  type: 'bulletList',
  content: items.map(item => ({ type: 'listItem' as const, content: [p(item)] })),
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
  make: () => PageDocument
}

/** Pages to begin with: what is written on them can stay, and each place for a file says that it waits for one. */
export const STARTS = {
  offer: {
    words: 'One download',
    hint: 'What it is, who it is for, one button',
    make: () =>
      pageOf(
        p(
          'Everything we have, with sizes and prices, on paper that you can write on. It is made anew whenever something changes, and this page always has the newest.',
        ),
        button('Download the list', { note: '{type}, {pages}, {size}' }),
        h2('What is in it'),
        bullets('Every article with its number', 'Prices for one and for many', 'How to order, and when it arrives'),
        section(
          'tint',
          h2('Not sure what you need?'),
          p('Tell us what you are about to make. We will send you the pages that matter.'),
          button('Write to us', { look: 'rim', note: '' }),
        ),
      ),
  },
  resources: {
    words: 'Many downloads',
    hint: 'A shelf that follows a folder, best first',
    make: () =>
      pageOf(
        p('All of it is free to read, to print and to pass on. Tick what you need and take it as one zip.'),
        h2('Start with these'),
        { type: 'fileCard', attrs: { ...newCard(null), look: 'rim' } },
        { type: 'fileCard', attrs: { ...newCard(null), look: 'rim' } },
        h2('All of them'),
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
        h2('Manual and papers'),
        button('Manual', { look: 'strap' }),
        button('Safety data sheet', { look: 'strap' }),
        button('Spare parts', { look: 'strap' }),
        section(
          'deep',
          h2('Something broken?'),
          p('We repair what we sell. Have the number on its plate at hand.'),
          button('Call the workshop', { look: 'rim', note: '' }),
        ),
      ),
  },
  thanks: {
    words: 'Thank you',
    hint: 'After an order or a class: what to read next',
    make: () =>
      pageOf(
        p('Thank you. What you need first is below; keep this page, it stays up to date.'),
        button('Read this first'),
        h2('When you are ready for more'),
        { type: 'shelf', attrs: { ...newShelf(null), pick: false } },
        p('If anything is missing or unclear, answer the mail we sent you. A person reads it.'),
      ),
  },
} as const satisfies Record<string, Start>
export type StartName = keyof typeof STARTS
export const START_NAMES = Object.keys(STARTS) as [StartName, ...StartName[]]
