import { listOf, type CatalogueIds } from './catalogues'
import type { FileIds } from './fileIds'
import { mdiFileEditOutline, mdiWrenchOutline } from '@mdi/js'
import type {
  Block,
  ButtonAttrs,
  CardAttrs,
  Inline,
  PictureAttrs,
  PageDocument,
  PlainBlock,
  ShelfAttrs,
  TableBlock,
} from '../core/page/schema'
import type { SiteIcon } from '../core/shelf/icons'
import type { NewShelfLook } from '../core/shelf/shelfLook'
import type { FolderSource, FoundSource, ShelfSource } from '../core/shelf/shelfSource'
import { BUILT_IN_LOOKS } from '../core/look/builtin'
import { withFill } from '../core/look/fillPictures'
import { newId } from '../core/id'
import { newButton, newCard, newLetterbox, newPicture, newSearch, newShelf } from '../core/page/insert'

/** The letterbox of the trade page. */
export const FORMS_BOX = 'forms1back'

const text = (words: string): Inline => ({ type: 'text', text: words })
const p = (...content: (string | Inline)[]): PlainBlock => ({
  type: 'paragraph',
  content: content.map(part => (typeof part === 'string' ? text(part) : part)),
})
const h2 = (words: string): PlainBlock => ({ type: 'heading', attrs: { level: 2 }, content: [text(words)] })
const bullets = (...items: string[]): PlainBlock => ({
  type: 'bulletList',
  content: items.map(item => ({ type: 'listItem' as const, content: [p(item)] })),
})
const steps = (...items: string[]): PlainBlock => ({
  type: 'orderedList',
  attrs: { start: 1 },
  content: items.map(item => ({ type: 'listItem' as const, content: [p(item)] })),
})

const quote = (words: string): PlainBlock => ({ type: 'blockquote', content: [p(words) as Extract<PlainBlock, { type: 'paragraph' }>] })
const columns = (...contents: PlainBlock[][]): Block => ({
  type: 'columns',
  content: contents.map(content => ({ type: 'column' as const, content })),
})
const section = (tone: 'tint' | 'deep', ...content: PlainBlock[]): Block => ({
  type: 'section',
  attrs: { tone, padding: 'medium', width: 'text' },
  content,
})
type Cell = TableBlock['content'][number]['content'][number]
/** A table whose first row and first column name the others. */
const table = (...rows: string[][]): PlainBlock => ({
  type: 'table',
  content: rows.map((cells, line) => ({
    type: 'tableRow',
    content: cells.map((words, at): Cell => ({
      type: line && at ? 'tableCell' : 'tableHeader',
      content: [{ type: 'paragraph', content: [text(words)] }],
    })),
  })),
})
type Button = Extract<PlainBlock, { type: 'downloadButton' }>
const row = (...content: Button[]): PlainBlock => ({ type: 'buttonRow', attrs: { align: 'left' }, content })

export interface DemoPage {
  title: string
  slug: string
  /** for search engines and previews of links */ description: string
  document: PageDocument
  /** goes with links to the page */ picture?: string
  later?: Block[]
}

/** Test tiles that are shown. */
const TILES = ['celadon', 'tenmoku', 'chun', 'oribe', 'honey', 'copper-red']

/** The pages of the site; `later` is added to the draft after publishing and waits there. */
export function makePages(
  ids: FileIds,
  folders: Map<string, string>,
  {
    glazePage,
    kilnLook,
    sheetLook,
    timetablePost,
    catalogues,
  }: {
    glazePage: string
    kilnLook: string
    /** how shelves of data sheets are shown */ sheetLook: string
    /** identity of the signpost to the timetable */ timetablePost: string
    catalogues: CatalogueIds
  },
): DemoPage[] {
  const target = (name: string) => {
    const id = ids.get(name)
    if (!id) throw new Error(`The demo has no file "${name}".`)
    return { kind: 'file' as const, id }
  }
  const button = (name: string | null, label: string, attrs: Partial<ButtonAttrs> = {}): Button => ({
    type: 'downloadButton',
    attrs: {
      placement: newId(10),
      target: name ? target(name) : null,
      label,
      note: '{type}, {size}',
      action: 'tab',
      saveAs: '',
      look: 'slab',
      align: 'left',
      ...attrs,
    },
  })
  const strap = (name: string | null, label: string, attrs: Partial<ButtonAttrs> = {}) => button(name, label, { look: 'strap', ...attrs })
  const link = (words: string, name: string): Inline => ({
    type: 'text',
    text: words,
    marks: [{ type: 'downloadLink', attrs: { placement: newId(10), target: target(name), action: 'tab', saveAs: '' } }],
  })

  const outside = (words: string, href: string): Inline => ({
    type: 'text',
    text: words,
    marks: [{ type: 'downloadLink', attrs: { placement: newId(10), target: { kind: 'address', href }, action: 'tab', saveAs: '' } }],
  })
  const card = (name: string, words: string, attrs: Partial<CardAttrs> = {}): PlainBlock => ({
    type: 'fileCard',
    attrs: { ...newCard(target(name)), look: 'rim', text: words, ...attrs },
  })
  const folderId = (path: string) => {
    const id = folders.get(path)
    if (!id) throw new Error(`The demo has no folder "${path}".`)
    return id
  }
  const allOf = (path: string, below: FolderSource['below'] = 'no'): ShelfSource => ({
    kind: 'folder',
    id: folderId(path),
    order: 'title',
    below,
  })
  const alike = (paths: string[], asked: Partial<FoundSource>): ShelfSource => ({
    kind: 'found',
    folders: paths.map(folderId),
    q: '',
    types: [],
    tags: [],
    order: 'title',
    below: 'no',
    ...asked,
  })
  const shelf = (source: ShelfSource, attrs: Partial<ShelfAttrs> = {}): PlainBlock => ({
    type: 'shelf',
    attrs: { ...newShelf(source), ...attrs },
  })
  const picture = (name: string, alt: string, attrs: Partial<PictureAttrs> = {}): PlainBlock => ({
    type: 'picture',
    attrs: { ...newPicture(target(name).id), alt, ...attrs },
  })

  return [
    {
      title: 'Clay, glaze and a warm kiln',
      slug: '',
      description:
        'Clays, glazes, kilns and evening classes from one yard. The current price list, firing charts and guides to take along.',
      picture: 'test-tile-shino.png',
      document: {
        type: 'doc',
        content: [
          {
            type: 'section',
            attrs: {
              tone: 'deep',
              padding: 'large',
              width: 'text',
              picture: target('kiln-shelves.jpg').id,
              placement: newId(10),
              veil: 55,
            },
            content: [
              p(
                'Marlpit Pottery Supply digs, mixes and bags its own clay, and keeps the glazes and kilns that go with it. The yard is open on weekdays from eight to five; in the evening the same rooms are a pottery school.',
              ),
              button('price-list-2026-11.pdf', 'Price list, November 2026', { note: '{type}, {pages}, {size}' }),
            ],
          },
          columns(
            [
              h2('New this season'),
              bullets('A grogged stoneware for large pots', 'Two ash glazes, pine and oak', 'Wednesday evenings for second-year throwers'),
            ],
            [
              h2('From our guides'),
              quote('Wedge until the cut face shows no more swirls. Then wedge ten times more.'),
              p('All of them are free to read and to print.'),
            ],
          ),
          section(
            'tint',
            h2('Come to a class'),
            p(
              'Ten evenings, clay and two firings included. See the ',
              link('winter timetable', 'timetable-2027-01.pdf'),
              ' and bring the joining form to the first evening.',
            ),
            strap(null, 'Class timetable', { target: { kind: 'signpost', id: timetablePost } }),
            strap('joining-form.docx', 'Joining form'),
            strap('packing-list.docx', 'What to bring'),
          ),
          section(
            'deep',
            h2('Teaching somewhere else?'),
            p('Schools and studios buy from the first pallet at trade prices, and every sheet is theirs to print.'),
            row(
              button('trade-price-list-2026-11.pdf', 'Trade price list'),
              button('All safety data sheets.zip', 'Safety data sheets', { look: 'rim', action: 'save' }),
            ),
          ),
        ],
      },
    },
    {
      title: 'Clay & glaze',
      slug: 'clay-and-glaze',
      description: 'Stoneware, earthenware and porcelain by the bag, glazes in powder: each with its safety data sheet and firing chart.',
      document: {
        type: 'doc',
        content: [
          p(
            'Every body and glaze comes with its safety data sheet and a firing chart. If you teach, print them: they are made for the studio wall.',
          ),
          h2('Safety data sheets'),
          strap('sds-marl-stoneware.pdf', 'Marl stoneware'),
          strap('sds-tin-white-glaze.pdf', 'Tin white glaze'),
          strap('sds-copper-carbonate.pdf', 'Copper carbonate'),
          strap('All safety data sheets.zip', 'All of them', { action: 'save' }),
          shelf(alike(['Safety data sheets'], { tags: ['safety'] }), { look: sheetLook, zipName: 'Marlpit safety data sheets' }),
          h2('Firing charts'),
          p('Tick those you need and take them as one zip.'),
          shelf(allOf('Firing charts'), { layout: 'tiles', zipName: 'Marlpit firing charts' }),
          h2('Mix your own'),
          p(
            'Our recipes are yours to change. Read the ',
            link('guide to mixing from powder', 'mixing-glaze-guide.pdf'),
            ' first, then take the sheet.',
          ),
          button('glaze-recipes.xlsx', 'Glaze recipes', { look: 'rim', action: 'save', saveAs: 'Marlpit glaze recipes.xlsx' }),
          button('Test tile picture pack.zip', 'Pictures of our test tiles', { look: 'rim', action: 'save' }),
          h2('All our clays'),
          listOf(catalogues, 'Clays', { way: 'table', fields: ['title', 'body', 'top', 'price', 'sheet'], narrow: ['body'], search: true }),
          h2('All our glazes'),
          listOf(catalogues, 'Glazes', { across: 3, narrow: ['surface', 'food'], only: [{ field: 'tile', is: 'set' }] }),
          h2('Not photographed yet'),
          listOf(catalogues, 'Glazes', { way: 'lines', fields: ['surface', 'price', 'sheet'], only: [{ field: 'tile', is: 'empty' }] }),
        ],
      },
    },
    {
      title: 'Trade',
      slug: 'trade',
      description: 'Prices, carriage and an account form for schools, studios and shops that buy from the first pallet.',
      document: {
        type: 'doc',
        content: [
          p(
            'Schools, studios and shops buy at trade prices from the first pallet. The list below holds for three months; the stock list is written every Friday.',
          ),
          // A month behind its file: one of the slips a real site has.
          button('trade-price-list-2026-11.pdf', 'Trade price list, October 2026'),
          button('stock-list-2026-11-20.csv', 'Stock list', { look: 'rim', action: 'save' }),
          h2('Delivery'),
          p('Pallets go out on Tuesdays and Thursdays. Tell us about narrow lanes.'),
          // Saved under a name that was true for a week, and an address that browsers warn of: two more such slips.
          p(
            'Prices moved a little in autumn: compare with ',
            link('the list of September', 'price-list-latest.pdf'),
            ', or with the ',
            outside('index of clay prices', 'http://index.clay-prices.example/autumn'),
            '.',
          ),
          h2('Send a form back'),
          p(
            'Print the ',
            link('trade account form', 'trade-account-form-2026-03.pdf'),
            ', sign it, and hand it in here with your letterhead.',
          ),
          {
            type: 'letterbox',
            attrs: {
              ...newLetterbox(),
              placement: FORMS_BOX,
              label: 'Your account form, signed',
              text: 'A scan or a clear photograph of each page will do. Nobody but our office sees it.',
              folder: folderId('Account forms'),
              kinds: ['document', 'picture'],
            },
          },
        ],
      },
      // Placed without a file: it must not go live unnoticed.
      later: [h2('Open an account'), p('Send the form back with a copy of your letterhead.'), button(null, 'Trade account form')],
    },
    {
      title: 'Kilns',
      slug: 'kilns',
      description: 'Three top loading kilns of 60 to 200 litres: manuals, installation, spare parts and repairs.',
      document: {
        type: 'doc',
        content: [
          p(
            'Three top loaders, built in the yard and repaired here for as long as they burn. Manuals are those of the kilns we sell now; ask for older ones by the number on the door.',
          ),
          button('kiln-installation-checklist-2026-03.pdf', 'Before a kiln is installed', {
            note: '{type}, {pages}, {size}',
            look: kilnLook,
          }),
          table(
            ['Kiln', 'Room inside', 'Hottest', 'Power'],
            ['K60', '60\u00A0litres', '1300\u00A0°C', '3.6\u00A0kW, one phase'],
            ['K100', '100\u00A0litres', '1300\u00A0°C', '7.5\u00A0kW, three phases'],
            ['K200', '200\u00A0litres', '1320\u00A0°C', '13\u00A0kW, three phases'],
          ),
          h2('Manuals'),
          card('Marlpit K60 manual.pdf', 'Sixty litres, from a household socket. For a shelf of mugs or one proud pot.', { title: 'K60' }),
          card('marlpit-k100-manual-2026-09.pdf', 'A hundred litres on three phases: the kiln of most evening schools.', { title: 'K100' }),
          card('marlpit-k200-manual-2026-03.pdf', 'Two hundred litres with a trolley base, for those who fire every other day.', {
            title: 'K200',
          }),
          section(
            'tint',
            h2('Keeping it going'),
            p(
              'Elements and thermocouples are yours to change. Switch off at the wall first, and read the ',
              link('four pages on elements', 'fitting-an-element-2026-03.pdf'),
              '.',
            ),
            shelf(allOf('Kilns/Spare parts'), {
              shown: { parts: ['icon', 'title', 'facts', 'look'] },
              zipName: 'Marlpit spare parts',
            }),
          ),
          h2('Every model'),
          listOf(catalogues, 'Kilns', { way: 'cards', across: 2, sort: { field: 'litres', down: false } }),
          h2('All about our kilns'),
          shelf(allOf('Kilns', 'folded'), { zipName: 'Marlpit kilns', search: true }),
        ],
      },
    },
    {
      title: 'Classes',
      slug: 'classes',
      description: 'Ten evenings at the wheel: timetable, joining form and what to bring.',
      document: {
        type: 'doc',
        content: [
          columns(
            [
              p(
                'Ten evenings of two and a half hours, six wheels, clay and two firings included. Beginners on Tuesdays, everybody else on Wednesdays and Thursdays.',
              ),
              button('timetable-2027-01.pdf', 'Timetable, winter 2027'),
            ],
            [picture('test-tile-shino.png', 'A test tile in shino, cream with orange where the glaze is thin', { size: 'half' })],
          ),
          h2('Before the first evening'),
          strap('joining-form.docx', 'Joining form'),
          strap('packing-list.docx', 'What to bring'),
          strap('studio-rules.docx', 'Rules of the studio'),
          quote('You will throw ten bad bowls. Then you will throw a bad bowl that you like.'),
          row(button('class-dates-2027.csv', 'All dates, for your calendar', { look: 'rim', action: 'save' }), {
            type: 'downloadButton',
            attrs: {
              ...newButton({ kind: 'email', address: 'school@marlpit.example' }, 'Ask the school'),
              look: 'rim',
              note: 'school@marlpit.example',
            },
          }),
          h2('Every course of the year'),
          listOf(catalogues, 'Courses', {
            way: 'lines',
            fields: ['level', 'begins', 'price', 'form'],
            group: 'day',
            sort: { field: 'begins', down: false },
            narrow: ['level', 'begins'],
          }),
        ],
      },
    },
    {
      title: 'Studio photos',
      slug: 'studio-photos',
      description: 'Test tiles of our glazes in daylight, one by one or all as a zip, free to use.',
      document: {
        type: 'doc',
        content: [
          p(
            'Every glaze on our own stoneware, fired to cone 8 and photographed by a north window. Press may use them; say where they are from.',
          ),
          {
            type: 'shelf',
            attrs: {
              ...newShelf({ kind: 'files', ids: TILES.map(name => target(`test-tile-${name}.png`).id) }),
              layout: 'pictures',
              zipName: 'Marlpit test tiles',
            },
          },
          button('Test tile picture pack.zip', 'The picture pack', {
            note: 'all tiles in full size, {type}, {size}',
            action: 'save',
            align: 'middle',
            own: {
              ...withFill(BUILT_IN_LOOKS[0]!.appearance, {
                kind: 'picture',
                file: target('test-tile-celadon.png').id,
                colour: 'accentDark',
                veil: 65,
              }),
              padding: { y: 30, x: 64 },
              size: 20,
            },
          }),
          { type: 'space', attrs: { size: 'small' } },
          h2('Where it happens'),
          picture('studio-plan.svg', 'Plan of the studio: six wheels on the left, kiln room and glaze bench on the right', {
            caption: 'Hang it by the door: a click saves it.',
            target: target('studio-plan.svg'),
            action: 'save',
          }),
        ],
      },
    },
    {
      title: 'Guides',
      slug: 'guides',
      description: 'Wedging, throwing, glazing and firing: short guides to read, print and pass on.',
      document: {
        type: 'doc',
        content: [
          p('Written at the bench, tried on every class since. Print them, pin them up, get clay on them.'),
          { type: 'search', attrs: { ...newSearch(), label: 'Find a sheet, a guide or a word in one' } },
          card('first-bowl-2026-03.pdf', 'Centre, open, pull, shape: the first bowl in six steps, with what goes wrong at each.', {
            note: '{type}, {size}, {downloads}',
          }),
          card('mixing-glaze-guide.pdf', 'From a bag of powder to a bucket that settles slowly. Scales, sieve, and patience.', {
            action: 'see',
          }),
          card('glaze-faults-2026-09.pdf', 'Crawling, pinholes, crazing: what the pot is telling you, and what to change.'),
          section('deep', h2('And all the rest'), shelf(allOf('Guides'), { zipName: 'Marlpit guides' })),
          h2('Last put in'),
          shelf(alike(['Guides', 'Firing charts', 'Kilns'], { types: ['document'], order: 'newest', most: 3 }), {
            layout: 'cards',
            pick: false,
            shown: { parts: ['picture', 'new', 'title', 'facts', 'look', 'button'], columns: { wide: 3, narrow: 1 }, newDays: 30 },
          }),
          h2('Glaze, in a few words'),
          shelf(alike([], { tags: ['glaze'] }), { layout: 'compact', pick: false }),
          h2('Reading a witness cone'),
          steps(
            'Stand it in a pat of clay, leaning the way it shall bend.',
            'Look through the spy hole from four degrees below its number on.',
            'Switch off when its tip touches the pat, and write the time down.',
          ),
          { type: 'horizontalRule' },
          p(
            'Safety data sheets are with ',
            {
              type: 'text',
              text: 'clay and glaze',
              marks: [
                {
                  type: 'downloadLink',
                  attrs: { placement: newId(10), target: { kind: 'page', id: glazePage }, action: 'here', saveAs: '' },
                },
              ],
            },
            '.',
          ),
        ],
      },
    },
    {
      title: 'What we keep of you',
      slug: 'privacy',
      description: 'What is counted when you take a file from us, what is kept of you, and for how long.',
      document: {
        type: 'doc',
        content: [
          p('Marlpit Pottery Supply, the yard at Marlpit Lane. Write to yard@marlpit.example with any question about what stands here.'),
          { type: 'privacy', attrs: { placement: newId(10) } },
        ],
      },
    },
  ]
}

/** How shelves of data sheets are shown. */
export const SHEET_LOOK: NewShelfLook = {
  name: 'Data sheets',
  shown: { layout: 'table', parts: ['title', 'facts', 'look'], facts: ['date', 'pages', 'size'], density: 'close' },
}

/** The icons that the shop has of its own: parts of kilns, and forms. */
export const makeIcons = (folders: Map<string, string>): SiteIcon[] => [
  {
    of: { kind: 'folder', value: folders.get('Kilns/Spare parts')! },
    icon: { kind: 'drawn', name: 'wrench-outline', path: mdiWrenchOutline },
  },
  { of: { kind: 'type', value: 'DOCX' }, icon: { kind: 'drawn', name: 'file-edit-outline', path: mdiFileEditOutline } },
]
