import { newField, type Field } from '../core/catalogue/field'
import type { Values } from '../core/catalogue/entry'

/** A catalogue of the demo; files stand in its entries by their names. */
export interface DemoCatalogue {
  name: string
  one: string
  type: 'Product' | 'Course'
  key: string | null
  fields: Field[]
  entries: Values[]
}

const options = (...names: string[]) => names.map(name => ({ id: name.toLowerCase().replace(/[^a-z]/g, ''), name }))
const about = newField('about', 'About', 'longText')
const price = (name: string) => newField('price', name, 'money', { currency: 'GBP' })

const CLAYS: [number: string, title: string, body: string, top: number, shrinks: number, price: number, about: string, sheet: string][] = [
  [
    'C101',
    'Marl stoneware, smooth',
    'stoneware',
    1280,
    12,
    11.4,
    'Our own clay, sieved twice. It throws like butter and forgives a beginner.',
    'sds-marl-stoneware.pdf',
  ],
  [
    'C102',
    'Marl stoneware, grogged',
    'stoneware',
    1280,
    10,
    12.2,
    'The same clay with a fine grog: it stands where a tall pot would slump.',
    'sds-marl-stoneware.pdf',
  ],
  ['C103', 'Throwing buff', 'stoneware', 1270, 12, 10.8, 'A warm buff with small specks of iron.', 'sds-marl-stoneware.pdf'],
  ['C104', 'Black stoneware', 'stoneware', 1240, 11, 16.9, 'Black all through. Keep its slops apart from everything else.', ''],
  ['C105', 'Crank, coarse', 'stoneware', 1300, 7, 9.9, 'For tiles, large forms and the garden.', 'sds-marl-stoneware.pdf'],
  ['C106', 'Raku body', 'raku', 1260, 6, 13.5, 'Stands the shock of the tongs.', ''],
  ['C107', 'Red earthenware', 'earthenware', 1120, 8, 8.7, 'Flowerpots, slipware, a whole dinner service.', 'sds-red-earthenware.pdf'],
  ['C108', 'White earthenware', 'earthenware', 1140, 7, 10.1, 'A white ground for bright slips.', ''],
  [
    'C109',
    'Porcelain P40',
    'porcelain',
    1290,
    15,
    24.5,
    'Translucent where it is thin, and without pity where it is not.\n\n- Wedge it cold\n- Throw it thick, turn it thin\n- Dry it under a cloth',
    'sds-porcelain-p40.pdf',
  ],
  ['C110', 'Paper clay', 'porcelain', 1280, 9, 19.8, 'Joins dry to dry. **It smells after a week**: mix what you need.', ''],
]
const CHARTS: Record<string, string> = {
  stoneware: 'firing-chart-stoneware.pdf',
  earthenware: 'firing-chart-earthenware.pdf',
  porcelain: 'firing-chart-porcelain.pdf',
  raku: 'firing-chart-raku.pdf',
}

const GLAZES: [number: string, title: string, surface: string, food: boolean, price: number, tile: string, sheet: string][] = [
  ['G201', 'Celadon, pale', 'gloss', true, 14.2, 'celadon', 'sds-celadon-glaze.pdf'],
  ['G202', 'Celadon, deep', 'gloss', true, 14.2, '', 'sds-celadon-glaze.pdf'],
  ['G203', 'Tenmoku', 'gloss', true, 13.1, 'tenmoku', ''],
  ['G204', 'Tin white', 'satin', true, 16.4, '', 'sds-tin-white-glaze.pdf'],
  ['G205', 'Chun blue', 'gloss', true, 15.7, 'chun', ''],
  ['G206', 'Ash, pine', 'satin', false, 12.8, '', ''],
  ['G207', 'Ash, oak', 'satin', false, 12.8, '', ''],
  ['G208', 'Shino, warm', 'satin', true, 13.9, 'shino', ''],
  ['G209', 'Copper red', 'gloss', false, 19.5, 'copper-red', 'sds-copper-carbonate.pdf'],
  ['G210', 'Matt slate', 'matt', false, 14.9, 'slate', ''],
  ['G211', 'Honey', 'gloss', true, 11.6, 'honey', ''],
  ['G212', 'Transparent, gloss', 'gloss', true, 9.8, '', ''],
  ['G213', 'Transparent, satin', 'satin', true, 9.8, '', ''],
  ['G214', 'Oribe green', 'gloss', false, 15.2, 'oribe', 'sds-copper-carbonate.pdf'],
]

const KILNS: [title: string, loads: string, litres: number, power: number, price: number, about: string, manual: string, parts: string][] =
  [
    ['K40', 'top', 40, 2.9, 1290, 'Test tiles, jewellery, one good bowl.', '', ''],
    [
      'K60',
      'top',
      60,
      3.6,
      1740,
      'Sixty litres, from a household socket. For a shelf of mugs or one proud pot.',
      'Marlpit K60 manual.pdf',
      'spare-parts-k60.xlsx',
    ],
    ['K80', 'top', 80, 5.5, 2190, 'Between the two that everybody buys.', '', ''],
    [
      'K100',
      'top',
      100,
      7.5,
      2680,
      'A hundred litres on three phases: the kiln of most evening schools.',
      'marlpit-k100-manual-2026-09.pdf',
      'spare-parts-k100.xlsx',
    ],
    ['K150', 'top', 150, 10.4, 3450, 'Deep enough for a garden pot.', '', ''],
    [
      'K200',
      'front',
      200,
      13,
      4990,
      'Two hundred litres with a trolley base, for those who fire every other day.',
      'marlpit-k200-manual-2026-03.pdf',
      '',
    ],
    ['K300', 'front', 300, 18, 7200, 'Built to order, in ten weeks.', '', ''],
    ['R50 raku kiln', 'raku', 50, 0, 980, 'Gas, with a lid that lifts in one move.', '', ''],
  ]

const CLASSES: [title: string, day: string, level: string, begins: string, price: number, full: boolean][] = [
  ['First bowls, Monday', 'monday', 'beginners', '2027-01-11', 210, true],
  ['First bowls, Tuesday', 'tuesday', 'beginners', '2027-01-12', 210, false],
  ['First bowls, Saturday morning', 'saturday', 'beginners', '2027-01-16', 230, false],
  ['Second year at the wheel', 'wednesday', 'improvers', '2027-01-13', 240, false],
  ['Tall and narrow', 'thursday', 'improvers', '2027-01-14', 240, true],
  ['Lids and spouts', 'wednesday', 'improvers', '2027-04-14', 240, false],
  ['Teapots', 'thursday', 'improvers', '2027-04-15', 255, false],
  ['Handbuilding', 'monday', 'everyone', '2027-01-11', 195, false],
  ['Slabs and templates', 'tuesday', 'everyone', '2027-04-13', 195, false],
  ['Tiles for a kitchen', 'saturday', 'everyone', '2027-02-20', 120, false],
  ['Mixing glazes from powder', 'saturday', 'everyone', '2027-03-06', 95, false],
  ['Reading a kiln', 'saturday', 'improvers', '2027-03-13', 85, false],
  ['A day of raku', 'saturday', 'everyone', '2027-05-08', 110, false],
  ['Porcelain, slowly', 'thursday', 'improvers', '2027-06-03', 280, false],
  ['Slipware for a week', 'monday', 'everyone', '2027-07-05', 390, false],
  ['Young potters', 'wednesday', 'beginners', '2027-01-13', 140, true],
]

const filled = (values: Record<string, Values[string] | undefined>): Values =>
  Object.fromEntries(Object.entries(values).filter((pair): pair is [string, Values[string]] => pair[1] !== undefined && pair[1] !== ''))

export const CATALOGUES: DemoCatalogue[] = [
  {
    name: 'Clays',
    one: 'clay',
    type: 'Product',
    key: 'number',
    fields: [
      newField('title', 'Name'),
      newField('number', 'Number', 'text', { unique: true }),
      newField('body', 'Body', 'choice', { options: options('Stoneware', 'Earthenware', 'Porcelain', 'Raku') }),
      newField('top', 'Fires to', 'number', { unit: '°C' }),
      newField('shrinks', 'Shrinks by', 'number', { unit: '%' }),
      price('Price of 12.5 kg'),
      about,
      newField('sheet', 'Safety data sheet', 'file'),
      newField('chart', 'Firing chart', 'file'),
    ],
    entries: CLAYS.map(([number, title, body, top, shrinks, amount, words, sheet]) =>
      filled({ number, title, body, top, shrinks, price: amount, about: words, sheet, chart: CHARTS[body] }),
    ),
  },
  {
    name: 'Glazes',
    one: 'glaze',
    type: 'Product',
    key: 'number',
    fields: [
      newField('title', 'Name'),
      newField('number', 'Number', 'text', { unique: true }),
      newField('surface', 'Surface', 'choice', { options: options('Gloss', 'Satin', 'Matt') }),
      newField('food', 'Safe for food', 'yesNo'),
      price('Price of a kilo'),
      newField('tile', 'Test tile', 'picture'),
      newField('sheet', 'Safety data sheet', 'file'),
    ],
    entries: GLAZES.map(([number, title, surface, food, amount, tile, sheet]) =>
      filled({ number, title, surface, food, price: amount, tile: tile && `test-tile-${tile}.png`, sheet }),
    ),
  },
  {
    name: 'Kilns',
    one: 'kiln',
    type: 'Product',
    key: null,
    fields: [
      newField('title', 'Model'),
      newField('loads', 'Loads from', 'choice', {
        options: [
          { id: 'top', name: 'The top' },
          { id: 'front', name: 'The front' },
          { id: 'raku', name: 'Lifts off' },
        ],
      }),
      newField('litres', 'Room inside', 'number', { unit: 'litres' }),
      newField('power', 'Power', 'number', { unit: 'kW' }),
      price('Price'),
      about,
      newField('manual', 'Manual', 'file'),
      newField('parts', 'Spare parts', 'file'),
    ],
    entries: KILNS.map(([title, loads, litres, power, amount, words, manual, parts]) =>
      filled({ title, loads, litres, power: power || undefined, price: amount, about: words, manual, parts }),
    ),
  },
  {
    name: 'Courses',
    one: 'course',
    type: 'Course',
    key: null,
    fields: [
      newField('title', 'Name'),
      newField('day', 'Day', 'choice', { options: options('Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Saturday') }),
      newField('level', 'For', 'choice', { options: options('Beginners', 'Improvers', 'Everyone') }),
      newField('begins', 'Begins', 'date'),
      price('Price'),
      newField('full', 'Full', 'yesNo'),
      newField('form', 'Joining form', 'file'),
    ],
    entries: CLASSES.map(([title, day, level, begins, amount, full]) =>
      filled({ title, day, level, begins, price: amount, full, form: full ? '' : 'joining-form.docx' }),
    ),
  },
]
