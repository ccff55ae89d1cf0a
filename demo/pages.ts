import type { Block, ButtonAttrs, Inline, PageDocument, PlainBlock } from '../core/page/schema'
import { newId } from '../core/id'
import { newShelf } from '../core/page/insert'

/** File identities by the name they came with. */
export type FileIds = Map<string, string>

const text = (words: string): Inline => ({ type: 'text', text: words })
const p = (...content: (string | Inline)[]): PlainBlock => ({ type: 'paragraph', content: content.map(part => typeof part === 'string' ? text(part) : part) })
const h2 = (words: string): PlainBlock => ({ type: 'heading', attrs: { level: 2 }, content: [text(words)] })
const bullets = (...items: string[]): PlainBlock => ({ type: 'bulletList', content: items.map(item => ({ type: 'listItem' as const, content: [p(item)] })) })

const quote = (words: string): PlainBlock => ({ type: 'blockquote', content: [p(words) as Extract<PlainBlock, { type: 'paragraph' }>] })
const columns = (...contents: PlainBlock[][]): Block => ({ type: 'columns', content: contents.map(content => ({ type: 'column' as const, content })) })
const section = (tone: 'tint' | 'deep', ...content: PlainBlock[]): Block => ({ type: 'section', attrs: { tone, padding: 'medium', width: 'text' }, content })
type Button = Extract<PlainBlock, { type: 'downloadButton' }>
const row = (...content: Button[]): PlainBlock => ({ type: 'buttonRow', attrs: { align: 'left' }, content })

export interface DemoPage { title: string, slug: string, document: PageDocument, later?: Block[] }

/** The pages of the site; `later` is added to the draft after publishing and waits there. */
export function makePages(ids: FileIds, folders: Map<string, string>): DemoPage[] {
  const target = (name: string) => {
    const id = ids.get(name)
    if (!id) throw new Error(`The demo has no file "${name}".`)
    return { kind: 'file' as const, id }
  }
  const button = (name: string | null, label: string, attrs: Partial<ButtonAttrs> = {}): Button => ({
    type: 'downloadButton',
    attrs: { placement: newId(10), target: name ? target(name) : null, label, note: '{type}, {size}', action: 'tab', saveAs: '', look: 'slab', align: 'left', ...attrs },
  })
  const strap = (name: string, label: string, attrs: Partial<ButtonAttrs> = {}) => button(name, label, { look: 'strap', ...attrs })
  const link = (words: string, name: string): Inline => ({
    type: 'text', text: words, marks: [{ type: 'downloadLink', attrs: { placement: newId(10), target: target(name), action: 'tab', saveAs: '' } }],
  })

  return [
    {
      title: 'Clay, glaze and a warm kiln', slug: '',
      document: { type: 'doc', content: [
        p('Marlpit Pottery Supply digs, mixes and bags its own clay, and keeps the glazes and kilns that go with it. The yard is open on weekdays from eight to five; in the evening the same rooms are a pottery school.'),
        button('price-list-2026-11.pdf', 'Price list, November 2026', { note: '{type}, {pages}, {size}' }),
        columns(
          [h2('New this season'), bullets('A grogged stoneware for large pots', 'Two ash glazes, pine and oak', 'Wednesday evenings for second-year throwers')],
          [h2('From our guides'), quote('Wedge until the cut face shows no more swirls. Then wedge ten times more.'), p('All of them are free to read and to print.')],
        ),
        section('tint',
          h2('Come to a class'),
          p('Ten evenings, clay and two firings included. See the ', link('winter timetable', 'timetable-2027-01.pdf'), ' and bring the joining form to the first evening.'),
          strap('timetable-2027-01.pdf', 'Class timetable, winter 2027'),
          strap('joining-form.docx', 'Joining form'),
          strap('packing-list.docx', 'What to bring'),
        ),
        section('deep',
          h2('Teaching somewhere else?'),
          p('Schools and studios buy from the first pallet at trade prices, and every sheet is theirs to print.'),
          row(button('trade-price-list-2026-11.pdf', 'Trade price list'), button('All safety data sheets.zip', 'Safety data sheets', { look: 'rim', action: 'save' })),
        ),
      ] },
    },
    {
      title: 'Clay & glaze', slug: 'clay-and-glaze',
      document: { type: 'doc', content: [
        p('Every body and glaze comes with its safety data sheet and a firing chart. If you teach, print them: they are made for the studio wall.'),
        h2('Safety data sheets'),
        strap('sds-marl-stoneware.pdf', 'Marl stoneware'),
        strap('sds-tin-white-glaze.pdf', 'Tin white glaze'),
        strap('sds-copper-carbonate.pdf', 'Copper carbonate'),
        strap('All safety data sheets.zip', 'All of them', { action: 'save' }),
        h2('Firing charts'),
        p('Tick those you need and take them as one zip.'),
        { type: 'shelf', attrs: { ...newShelf({ kind: 'folder', id: folders.get('Firing charts')!, order: 'title' }), zipName: 'Marlpit firing charts' } },
        h2('Mix your own'),
        p('Our recipes are yours to change. Read the ', link('guide to mixing from powder', 'mixing-glaze-guide.pdf'), ' first, then take the sheet.'),
        button('glaze-recipes.xlsx', 'Glaze recipes', { look: 'rim', action: 'save', saveAs: 'Marlpit glaze recipes.xlsx' }),
        button('Test tile picture pack.zip', 'Pictures of our test tiles', { look: 'rim', action: 'save' }),
      ] },
    },
    {
      title: 'Trade', slug: 'trade',
      document: { type: 'doc', content: [
        p('Schools, studios and shops buy at trade prices from the first pallet. The list below holds for three months; the stock list is written every Friday.'),
        // A month behind its file: one of the slips a real site has.
        button('trade-price-list-2026-11.pdf', 'Trade price list, October 2026'),
        button('stock-list-2026-11-20.csv', 'Stock list', { look: 'rim', action: 'save' }),
        h2('Delivery'),
        p('Pallets go out on Tuesdays and Thursdays. Tell us about narrow lanes.'),
      ] },
      // Placed without a file: it must not go live unnoticed.
      later: [h2('Open an account'), p('Send the form back with a copy of your letterhead.'), button(null, 'Trade account form')],
    },
  ]
}
