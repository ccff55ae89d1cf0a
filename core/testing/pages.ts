import { KEEPS_LITTLE } from '../privacy/kept'
import type { Language } from '../language/languages'
import { speechOf } from '../language/speech'
import type { LetterboxAttrs } from '../letterbox/letterbox'
import { shownBy } from '../shelf/shelfLook'
import type { Block, ButtonAttrs, Mark, PageDocument, PlainBlock, ShelfAttrs } from '../page/schema'
import { flat } from '../shelf/listing'
import { DEFAULT_STYLE } from '../look/siteStyle'
import type { SiteFacts } from '../page/document'
import type { PageFacts } from '../page/html'
import type { TargetFacts } from '../page/placeholders'

/** How a site speaks that was not asked to speak otherwise. */
export const ENGLISH = speechOf('en')

/** Building blocks for tests of pages. */
export const PDF_FACTS: TargetFacts = {
  id: 'pdf',
  handle: 'list.pdf',
  title: 'Price list',
  fileName: 'list.pdf',
  mediaType: 'application/pdf',
  size: 240_000,
  pages: 4,
  description: 'All prices',
  tags: ['prices'],
  folder: null,
  edition: 2,
  changed: '2026-11-02T23:30:00.000Z',
  downloads: 1234,
  picture: { version: 'aaaaaaaa' },
}
export const ZIP_FACTS: TargetFacts = {
  id: 'zip',
  handle: 'pictures.zip',
  title: 'Pictures',
  fileName: 'pictures.zip',
  mediaType: 'application/zip',
  size: 1_400_000,
  description: '',
  tags: [],
  folder: null,
  edition: 1,
  changed: '2026-01-31T08:00:00.000Z',
  downloads: 1,
}

/** A site on which nothing was set up yet. */
export const NEW_SITE: SiteFacts = { name: 'Site', address: '', menu: [], style: DEFAULT_STYLE, edges: {} }

export function button(attrs: Partial<ButtonAttrs> = {}): PlainBlock {
  return {
    type: 'downloadButton',
    attrs: {
      placement: 'aaaaaaaaaa',
      target: { kind: 'file', id: 'pdf' },
      label: 'Price list',
      note: '{type}, {size}',
      action: 'tab',
      saveAs: '',
      look: 'slab',
      align: 'left',
      ...attrs,
    },
  }
}

export const shelf = (attrs: Partial<ShelfAttrs> = {}): PlainBlock => ({
  type: 'shelf',
  attrs: { placement: 'ssssssssss', source: { kind: 'files', ids: ['pdf', 'zip'] }, action: 'tab', pick: true, zipName: '', ...attrs },
})

export const linkMark = (placement: string, id: string | null): Mark => ({
  type: 'downloadLink',
  attrs: { placement, target: id ? { kind: 'file', id } : null, action: 'tab', saveAs: '' },
})

export const words = (text: string, ...marks: Mark[]): PlainBlock => ({
  type: 'paragraph',
  content: [{ type: 'text', text, ...(marks.length && { marks }) }],
})

export const heading = (text: string, level: 2 | 3 = 2): PlainBlock => ({
  type: 'heading',
  attrs: { level },
  content: [{ type: 'text', text }],
})

export const pageOf = (...content: Block[]): PageDocument => ({ type: 'doc', content })

/** What shelves are shown by where nothing was set up for them. */
export const PLAIN_SHELVES = {
  entry: () => undefined,
  shelfLook: () => undefined,
  icon: () => undefined,
  kept: KEEPS_LITTLE,
  now: Date.parse('2026-11-29T12:00:00.000Z'),
}

/** How a shelf is written in tests. */
export const shelfWriting = (given: Partial<ShelfAttrs>, language: Language = 'en') => {
  const { attrs } = shelf(given) as { attrs: ShelfAttrs }
  return {
    ...PLAIN_SHELVES,
    attrs,
    shown: shownBy(attrs, () => undefined),
    iconOf: () => undefined,
    buttonClass: () => 'tr-look-slab',
    speech: speechOf(language),
  }
}

/** What a page is rendered with where these files are all there is. */
export const knowing = (...files: TargetFacts[]): PageFacts => ({
  file: id => files.find(file => file.id === id),
  page: () => undefined,
  signpost: () => undefined,
  shelf: () => flat(files),
  look: () => undefined,
  ...PLAIN_SHELVES,
  speech: ENGLISH,
})

export const letterbox = (attrs: Partial<LetterboxAttrs> = {}): PlainBlock => ({
  type: 'letterbox',
  attrs: { placement: 'letterbox1', label: '', text: '', folder: null, kinds: [], most: 5, largest: 20, ...attrs },
})
