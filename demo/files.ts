import { strToU8, zipSync } from 'fflate'
import { makeForm, makeList, makeSheet, makeSlides } from './office'
import { makePdf, type PdfSpec } from './pdf'
import { makeKilnShelves, makeMark, makePlan, makeTile, makeTone } from './pictures'
import { YARD } from './owner'
import * as texts from './texts'

export interface DemoFile {
  name: string
  /** path of its folder */
  folder?: string
  title?: string
  description?: string
  tags?: string[]
  /** name of the file whose next edition it is */
  editionOf?: string
  /** an edition that is there, and not yet shown to visitors */
  waits?: boolean
  /** e-mail of who put it in, where it was not the owner */
  by?: string
  bytes: Buffer
}

export interface DemoFolder {
  path: string
  mark?: 'water' | 'clay' | 'straw' | 'moss'
  description?: string
  ownOrder?: boolean
}

export const FOLDERS: DemoFolder[] = [
  { path: 'Price lists', mark: 'straw', description: 'Changed every quarter; the pages follow' },
  { path: 'Safety data sheets', mark: 'clay', description: 'One for every clay and glaze sold' },
  { path: 'Firing charts', mark: 'moss' },
  { path: 'Kilns', description: 'Manuals and papers, by model' },
  { path: 'Kilns/Spare parts' },
  { path: 'Classes', mark: 'water', ownOrder: true },
  { path: 'Guides' },
  { path: 'Studio photos' },
  { path: 'Deliveries', description: 'What the yard signed for' },
  { path: 'Contracts', description: 'For one client each' },
  { path: 'Account forms', description: 'What came back by the letterbox' },
  { path: 'For the site', description: 'Pictures the pages are made of' },
]

const NOVEMBER = new Date('2026-11-02T09:00:00Z')
const SEPTEMBER = new Date('2026-09-07T09:00:00Z')
const MARCH = new Date('2026-03-02T09:00:00Z')

const TILES: [name: string, base: string, pool: string, words: string][] = [
  ['celadon', '#8fae9c', '#6b9484', 'Celadon, grey-green, pooling darker at the foot'],
  ['tenmoku', '#4a2c1c', '#1e120c', 'Tenmoku, near black, breaking to rust on the edge'],
  ['chun', '#7f9bb8', '#5b7ba3', 'Chun, milky blue with a soft run'],
  ['shino', '#d9b08c', '#b9754a', 'Shino, cream with orange where it is thin'],
  ['oribe', '#3f6b4a', '#244a30', 'Oribe, copper green with dark runs'],
  ['honey', '#b98a3c', '#8a5e1e', 'Honey, clear amber over iron specks'],
  ['copper-red', '#7d2b26', '#5a1b1b', 'Copper red, deep, bright where it is thick'],
  ['slate', '#5d666b', '#444c51', 'Slate, matt grey'],
]

const SHEETS: [file: string, product: string, hazard: string, firstAid: string][] = [
  [
    'marl-stoneware',
    'Marl stoneware',
    'Not classified while wet. Dry dust may damage the lungs over years (quartz).',
    'After breathing dust: fresh air. Eyes: rinse with water.',
  ],
  [
    'red-earthenware',
    'Red earthenware',
    'Not classified while wet. Dry dust may damage the lungs over years (quartz).',
    'After breathing dust: fresh air.',
  ],
  [
    'porcelain-p40',
    'Porcelain P40',
    'Not classified while wet. Dry dust may damage the lungs over years (quartz).',
    'After breathing dust: fresh air.',
  ],
  [
    'tin-white-glaze',
    'Tin white glaze',
    'Irritates the eyes. Dust may damage the lungs over years (quartz).',
    'Eyes: rinse for fifteen minutes with water.',
  ],
  [
    'celadon-glaze',
    'Celadon glaze',
    'Irritates the eyes. Dust may damage the lungs over years (quartz).',
    'Eyes: rinse for fifteen minutes with water.',
  ],
  [
    'copper-carbonate',
    'Copper carbonate',
    'Harmful if swallowed. Very toxic to life in water.',
    'If swallowed: rinse the mouth, call a doctor, show this sheet.',
  ],
  [
    'cobalt-oxide',
    'Cobalt oxide',
    'Harmful if swallowed. May cause an allergic skin reaction.',
    'Skin: wash with soap. If swallowed: call a doctor.',
  ],
  ['manganese-dioxide', 'Manganese dioxide', 'Harmful if swallowed or breathed in.', 'After breathing dust: fresh air, rest, a doctor.'],
  ['iron-oxide', 'Red iron oxide', 'Not classified. It stains.', 'Wash with soap.'],
]

/** The files of the library, oldest first. */
export async function makeFiles(): Promise<DemoFile[]> {
  const tiles = await Promise.all(TILES.map(([, base, pool], index) => makeTile({ base, pool }, index * 2 + 3)))
  const csv = (rows: (string | number)[][]) =>
    Buffer.from(rows.map(row => row.map(cell => (/,/.test(String(cell)) ? `"${cell}"` : cell)).join(',')).join('\r\n'))
  const pdf = async (folder: string, name: string, spec: PdfSpec, issued: Date, more: Partial<DemoFile> = {}): Promise<DemoFile> => ({
    folder,
    name,
    bytes: await makePdf(spec, issued),
    ...more,
  })

  return [
    // Out on the top of the library, where things lie that were only just put in.
    { name: 'scan0007.pdf', bytes: await makePdf(texts.letter, MARCH) },
    {
      name: 'opening hours FINAL (2).docx',
      bytes: await makeList('Opening hours', [
        'Monday to Friday, eight to five',
        'Saturday, nine to noon',
        'Closed from 24 December to 2 January',
      ]),
    },

    ...TILES.map(([name, , , description], index): DemoFile => ({
      folder: 'Studio photos',
      name: `test-tile-${name}.png`,
      description,
      tags: ['test tile'],
      bytes: tiles[index]!,
    })),
    { folder: 'For the site', name: 'kiln-shelves.jpg', title: 'Kiln shelves', bytes: await makeKilnShelves() },
    { folder: 'For the site', name: 'marlpit-mark.svg', title: 'Mark of Marlpit', bytes: makeMark() },
    {
      folder: 'Studio photos',
      name: 'studio-plan.svg',
      description: 'Wheels, glaze bench and kiln room, to be hung by the door',
      bytes: makePlan(),
    },
    {
      folder: 'Studio photos',
      name: 'test-tile-pictures.zip',
      bytes: Buffer.from(
        zipSync(Object.fromEntries(TILES.slice(0, 3).map(([name], index) => [`${name}.png`, new Uint8Array(tiles[index]!)])), {
          level: 0,
          mtime: NOVEMBER,
        }),
      ),
    },

    { folder: 'Kilns', name: 'kiln-finished.wav', title: 'Kiln finished tone', bytes: makeTone() },
    await pdf('Kilns', 'Marlpit K60 manual.pdf', texts.kilnManual('K60'), SEPTEMBER, { title: 'K60 kiln manual', tags: ['K60', 'manual'] }),
    await pdf('Kilns', 'marlpit-k100-manual-2026-09.pdf', texts.kilnManual('K100'), SEPTEMBER, {
      title: 'K100 kiln manual',
      tags: ['K100', 'manual'],
    }),
    await pdf('Kilns', 'marlpit-k200-manual-2026-03.pdf', texts.kilnManual('K200'), MARCH, {
      title: 'K200 kiln manual',
      tags: ['K200', 'manual'],
    }),
    await pdf('Kilns', 'kiln-installation-checklist-2026-03.pdf', texts.installation, MARCH, {
      title: 'Before a kiln is installed',
      tags: ['K60', 'K100', 'K200'],
    }),
    {
      folder: 'Kilns',
      name: 'kiln-controller-introduction.pptx',
      title: 'The controller in five slides',
      bytes: makeSlides(texts.controllerSlides),
    },
    { folder: 'Kilns/Spare parts', name: 'spare-parts-k60.xlsx', tags: ['K60'], bytes: await makeSheet(texts.partRows('K60')) },
    { folder: 'Kilns/Spare parts', name: 'spare-parts-k100.xlsx', tags: ['K100'], bytes: await makeSheet(texts.partRows('K100')) },
    await pdf('Kilns/Spare parts', 'fitting-an-element-2026-03.pdf', texts.elementGuide, MARCH, { title: 'Fitting a new element' }),
    await pdf('Kilns/Spare parts', 'thermocouple v2.pdf', texts.thermocouple, SEPTEMBER, { title: 'Changing the thermocouple' }),

    await pdf('Firing charts', 'firing-chart-stoneware.pdf', texts.firingChart('Stoneware', 1260), SEPTEMBER),
    await pdf('Firing charts', 'firing-chart-earthenware.pdf', texts.firingChart('Earthenware', 1080), SEPTEMBER),
    await pdf('Firing charts', 'firing-chart-porcelain.pdf', texts.firingChart('Porcelain', 1280), SEPTEMBER),
    await pdf('Firing charts', 'firing-chart-raku.pdf', texts.firingChart('Raku', 980), MARCH),
    await pdf('Firing charts', 'firing-chart-biscuit.pdf', texts.firingChart('Biscuit', 1000), MARCH),

    ...(await Promise.all(
      SHEETS.map(([file, product, hazard, firstAid]) =>
        pdf('Safety data sheets', `sds-${file}.pdf`, texts.safetySheet(product, hazard, firstAid), NOVEMBER, {
          title: `Safety data sheet: ${product}`,
          tags: ['safety'],
        }),
      ),
    )),

    await pdf(
      'Deliveries',
      'delivery-note-2026-10-12.pdf',
      texts.deliveryNote('4471', 'the clay pit', [
        ['Marl stoneware, 12.5 kg bags', '6'],
        ['Red earthenware, 12.5 kg bags', '4'],
      ]),
      NOVEMBER,
      { title: 'Delivery note 4471', by: YARD.email },
    ),
    await pdf(
      'Deliveries',
      'delivery-note-2026-11-09.pdf',
      texts.deliveryNote('4502', 'the glaze works', [['Powdered glazes, 5 kg tubs', '2']]),
      NOVEMBER,
      { title: 'Delivery note 4502', by: YARD.email },
    ),
    await pdf('Contracts', 'supply-agreement-hollow-lane-2026-09.pdf', texts.supplyAgreement, SEPTEMBER, {
      title: 'Supply agreement, Hollow Lane School',
    }),

    await pdf('Guides', 'mixing-glaze-guide.pdf', texts.glazeGuide, SEPTEMBER, { title: 'Mixing a glaze from powder' }),
    await pdf(
      'Guides',
      'wedging-clay-2026-03.pdf',
      texts.guide('Wedging clay', ['Cut', 'Slam', 'Ram’s head', 'Spiral', 'Look for air']),
      MARCH,
      { title: 'Wedging clay' },
    ),
    await pdf(
      'Guides',
      'first-bowl-2026-03.pdf',
      texts.guide('Throwing a first bowl', ['Centre', 'Open', 'Pull', 'Shape', 'Wire off', 'Turn the foot']),
      MARCH,
      { title: 'Throwing a first bowl' },
    ),
    await pdf(
      'Guides',
      'glaze-faults-2026-09.pdf',
      texts.guide('Glaze faults and their cures', ['Crawling', 'Pinholes', 'Crazing', 'Shivering', 'Running', 'Dunting']),
      SEPTEMBER,
      { title: 'Glaze faults and their cures', tags: ['glaze'] },
    ),
    await pdf(
      'Guides',
      'reading-a-cone-05-11-26.pdf',
      texts.guide('Reading a witness cone', ['What it is', 'Where it stands', 'When it has bent', 'When it has melted']),
      NOVEMBER,
      { title: 'Reading a witness cone' },
    ),
    { folder: 'Guides', name: 'glaze-recipes.xlsx', tags: ['glaze'], bytes: await makeSheet(texts.recipeRows) },
    { folder: 'Guides', name: 'glaze-notebook.md', title: 'Glaze notebook', tags: ['glaze'], bytes: Buffer.from(texts.notebook) },
    {
      folder: 'Guides',
      name: 'raw-materials.csv',
      title: 'Raw materials and what they do',
      tags: ['glaze'],
      bytes: csv(texts.materialRows),
    },

    {
      folder: 'Classes',
      name: 'joining-form.docx',
      title: 'Class joining form',
      bytes: await makeForm('Joining form', 'Fill this in and bring it to the first evening.', [
        'Name',
        'Telephone',
        'E-mail',
        'Class',
        'Have you thrown before?',
        'Anything we should know',
      ]),
    },
    {
      folder: 'Classes',
      name: 'packing-list.docx',
      title: 'What to bring to a class',
      bytes: await makeList('What to bring', ['Apron', 'Towel', 'Notebook', 'A mug that you like', 'Short fingernails']),
    },
    {
      folder: 'Classes',
      name: 'studio-rules.docx',
      title: 'Rules of the studio',
      bytes: await makeList('Rules of the studio', [
        'Wipe wet, never sweep dry',
        'Label your shelf',
        'Kilns are opened by staff only',
        'Leave the wheel as you would like to find it',
      ]),
    },
    { folder: 'Classes', name: 'class-dates-2027.csv', title: 'Class dates, winter 2027', bytes: csv(texts.dateRows) },
    await pdf('Classes', 'timetable-2027-01.pdf', texts.timetable, NOVEMBER, { title: 'Class timetable, winter 2027' }),
    await pdf('Classes', 'timetable-2027-04.pdf', texts.springTimetable, NOVEMBER, { editionOf: 'timetable-2027-01.pdf', waits: true }),

    {
      folder: 'Price lists',
      name: 'stock-list-2026-11-20.csv',
      title: 'Stock list',
      bytes: csv([['code', 'clay body', 'bags in stock'], ...texts.stockRows]),
    },
    { folder: 'Price lists', name: 'carriage-rates-2026-03.csv', title: 'Carriage rates', bytes: csv(texts.carriageRows) },
    await pdf('Price lists', 'price-list-latest.pdf', texts.priceList('Price list', 'September 2026', 0.97), SEPTEMBER, {
      title: 'Price list (latest)',
    }),
    await pdf('Price lists', 'trade-price-list-2026-11.pdf', texts.priceList('Trade price list', 'November 2026', 0.8), NOVEMBER, {
      title: 'Trade price list',
      tags: ['trade'],
    }),
    await pdf('Price lists', 'trade-account-form-2026-03.pdf', texts.accountForm, MARCH, { title: 'Trade account form', tags: ['trade'] }),
    await pdf('Price lists', 'price-list-2026-05.pdf', texts.priceList('Price list', 'May 2026', 0.93), MARCH, { title: 'Price list' }),
    await pdf('Price lists', 'price-list-2026-08.pdf', texts.priceList('Price list', 'August 2026', 0.96), SEPTEMBER, {
      editionOf: 'price-list-2026-05.pdf',
    }),
    await pdf('Price lists', 'price-list-2026-11.pdf', texts.priceList('Price list', 'November 2026', 1), NOVEMBER, {
      editionOf: 'price-list-2026-05.pdf',
    }),
    { folder: 'Price lists', name: 'order-form.html', title: 'Order form, to be printed', bytes: Buffer.from(strToU8(texts.orderForm)) },
  ]
}
