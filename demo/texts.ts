import type { PdfSpec } from './pdf'
import { seeded } from './random'

const CLAYS = [
  'Marl stoneware, smooth',
  'Marl stoneware, grogged',
  'Red earthenware',
  'White earthenware',
  'Porcelain P40',
  'Crank, coarse',
  'Raku body',
  'Paper clay',
  'Black stoneware',
  'Throwing buff',
]
const GLAZES = [
  'Celadon, pale',
  'Celadon, deep',
  'Tenmoku',
  'Tin white',
  'Chun blue',
  'Ash, pine',
  'Ash, oak',
  'Shino, warm',
  'Copper red',
  'Matt slate',
  'Honey',
  'Transparent, gloss',
  'Transparent, satin',
  'Oribe green',
]
const TOOLS = [
  'Turning tool, loop',
  'Boxwood rib',
  'Steel kidney',
  'Needle tool',
  'Cutting wire',
  'Sponge, elephant ear',
  'Banding wheel, 22 cm',
  'Bat, 30 cm',
  'Slip trailer',
  'Calliper, 20 cm',
  'Kiln shelf, 40 by 40',
  'Kiln prop, 10 cm',
  'Cone pack, 6 to 10',
]

const pounds = (value: number) => value.toFixed(2)

function priced(names: string[], sizes: string[], random: () => number, factor: number): string[][] {
  return names.flatMap(name =>
    sizes.map((size, index) => {
      const price = (4 + random() * 9) * (index * 2.1 + 1) * factor
      return [`${name}, ${size}`, pounds(price), pounds(price * 1.2)]
    }),
  )
}

/** Prices of everything sold; the trade's are lower by the factor. */
export function priceList(title: string, subtitle: string, factor: number): PdfSpec {
  const random = seeded(26)
  const head = ['Item', 'Without tax', 'With tax']
  return {
    title,
    subtitle,
    sections: [
      {
        heading: 'How to order',
        text: [
          'Prices are for collection from the yard. Clay is sold by the bag; ten bags of one body make a pallet layer and save the carriage on them. Order by e-mail or at the counter before noon for the next day.',
        ],
      },
      { heading: 'Clay bodies', table: [head, ...priced(CLAYS, ['12.5 kg', '25 kg', 'pallet of 40'], random, factor)] },
      { heading: 'Glazes', table: [head, ...priced(GLAZES, ['500 g', '1 kg', '5 kg', '25 kg'], random, factor)] },
      { heading: 'Tools and kiln furniture', table: [head, ...priced(TOOLS, ['each', 'pack of 10'], random, factor)] },
    ],
  }
}

/** A safety data sheet in its sixteen sections (the order of Regulation (EC) No 1907/2006, Annex II). */
export function safetySheet(product: string, hazard: string, firstAid: string): PdfSpec {
  const rest = [
    'Fire-fighting measures',
    'Accidental release',
    'Handling and storage',
    'Exposure controls',
    'Physical properties',
    'Stability',
    'Toxicology',
    'Ecology',
    'Disposal',
    'Transport',
    'Regulation',
    'Other information',
  ]
  return {
    title: `Safety data sheet: ${product}`,
    subtitle: 'Revision of November 2026',
    sections: [
      { heading: '1. Product and supplier', text: [`${product}, for making and decorating pottery. Supplied by Marlpit Pottery Supply.`] },
      { heading: '2. Hazards', text: [hazard] },
      { heading: '3. Composition', text: ['Natural and calcined minerals, ground. The dust contains quartz.'] },
      { heading: '4. First aid', text: [firstAid] },
      ...rest.map((heading, index) => ({
        heading: `${index + 5}. ${heading}`,
        text: [
          `For ${product.toLowerCase()}: keep dust down. Wipe wet, never sweep dry; wear a mask to FFP3 when mixing powder. Store dry and closed, away from food. Wash hands and change the apron before eating.`,
          'Keep this sheet where the material is used, and show it to a doctor if one is called.',
        ],
      })),
    ],
  }
}

export function firingChart(body: string, top: number): PdfSpec {
  return {
    title: `Firing chart: ${body}`,
    subtitle: `Electric kiln, oxidation, to ${top} °C`,
    sections: [
      {
        heading: 'Glaze firing',
        text: [
          "Slow to 600 °C while the last water leaves, then at the kiln's own pace. Soak at the top until the witness cone bends to the shelf.",
        ],
        curve: {
          label: `Temperature over time for ${body.toLowerCase()}`,
          points: [
            [0, 20],
            [2, 120],
            [5, 600],
            [8, top - 120],
            [9.5, top],
            [10, top],
            [13, 700],
            [18, 120],
          ],
        },
      },
    ],
  }
}

const MANUAL_PARTS = [
  'Before you begin',
  'Where the kiln stands',
  'Electrical connection',
  'First firing',
  'Packing the kiln',
  'The controller',
  'Writing a programme',
  'Biscuit firing',
  'Glaze firing',
  'Cooling',
  'Elements',
  'The thermocouple',
  'Lid and seals',
  'Cleaning',
  'Faults and what to do',
  'Spare parts',
]

export function kilnManual(model: string): PdfSpec {
  return {
    title: `${model} kiln: owner's manual`,
    subtitle: 'Top-loading electric kiln, 60 litres, 1300 °C',
    sections: MANUAL_PARTS.flatMap((part, index) => [
      {
        heading: `${index + 1}. ${part}`,
        text: Array.from(
          { length: 7 },
          (_, line) =>
            `${part}, step ${line + 1}. Switch the ${model} off at the wall before opening the panel. Leave 30 cm free on every side and a metre above. Do not open the lid above 100 °C: the ware cracks, and so may the shelf. Write each firing into the log with its cone, its top temperature and how long it held there.`,
        ),
      },
      {
        heading: `${part}: figures`,
        table: [
          ['Setting', 'Least', 'Most'],
          ...Array.from({ length: 8 }, (_, row) => [`Stage ${row + 1}, degrees an hour`, String(60 + row * 10), String(120 + row * 15)]),
        ],
      },
    ]),
  }
}

export const timetable: PdfSpec = {
  title: 'Evening classes, winter 2027',
  subtitle: 'Ten weeks from 11 January 2027',
  sections: [
    {
      heading: 'Weekly',
      table: [
        ['Class', 'From', 'To'],
        ['Monday: throwing for beginners', '18:30', '21:00'],
        ['Tuesday: hand building', '18:30', '21:00'],
        ['Wednesday: throwing, second year', '18:30', '21:00'],
        ['Thursday: glaze chemistry', '19:00', '21:00'],
        ['Saturday: open studio', '10:00', '16:00'],
      ],
    },
    {
      heading: 'What it costs',
      text: ['Ten evenings are 240 pounds with clay and two firings. Bring an apron and a towel; tools are there.'],
    },
  ],
}

export const glazeGuide: PdfSpec = {
  title: 'Mixing a glaze from powder',
  subtitle: 'A guide for the studio',
  sections: ['Weigh', 'Add powder to water', 'Let it stand', 'Sieve', 'Measure the thickness', 'Dip a test tile', 'Write it down'].map(
    (heading, index) => ({
      heading: `${index + 1}. ${heading}`,
      text: [
        'Wear a mask until the powder is under water. A litre of water takes about a kilogram of powder; begin with less water than you think, for more can be added.',
        'Pass it through an 80-mesh sieve twice. A dry tile dipped for three seconds should carry a coat as thick as a fingernail.',
      ],
    }),
  ),
}

export const stockRows = CLAYS.map((name, index): (string | number)[] => [
  `C${String(index + 1).padStart(3, '0')}`,
  name,
  12 + ((index * 7) % 40),
])
export const recipeRows: (string | number)[][] = [
  ['Glaze', 'Feldspar', 'Quartz', 'Whiting', 'China clay', 'Iron oxide'],
  ['Celadon, pale', 42, 28, 18, 12, 1],
  ['Celadon, deep', 40, 28, 19, 13, 2],
  ['Tenmoku', 48, 22, 15, 7, 8],
  ['Honey', 38, 24, 20, 14, 4],
  ['Transparent, gloss', 45, 25, 20, 10, 0],
]

const sections = (headings: string[], text: (heading: string) => string[]): PdfSpec['sections'] =>
  headings.map((heading, index) => ({ heading: `${index + 1}. ${heading}`, text: text(heading) }))

/** A short guide for the studio, a step a heading. */
export function guide(title: string, steps: string[]): PdfSpec {
  return {
    title,
    subtitle: 'A guide for the studio',
    sections: sections(steps, step => [
      `${step}: take your time over it. Work with both elbows held to your sides, and with no more water than it needs.`,
      'If it goes wrong, stop, look at what happened, and begin again with a fresh piece; clay is patient and can be reclaimed.',
    ]),
  }
}

export const installation: PdfSpec = {
  title: 'Before a kiln is installed',
  subtitle: 'A list to go through with your electrician',
  sections: sections(['The room', 'The floor', 'The supply', 'The isolator', 'Ventilation', 'The way in'], heading => [
    `${heading}: measure it, write it down, and send it to us with the order. A kiln of 100 litres weighs 140 kg and does not go round a bend of less than 90 cm.`,
  ]),
}

export const elementGuide: PdfSpec = {
  title: 'Fitting a new element',
  subtitle: 'For the K60, K100 and K200',
  sections: sections(
    [
      'Isolate the kiln',
      'Draw the old element',
      'Stretch the new one',
      'Seat it in the groove',
      'Crimp the tails',
      'Measure the resistance',
    ],
    heading => [
      `${heading}. Switch off at the isolator, lock it, and hang the notice on it. A new element is soft until its first firing: bend it only while it is warm.`,
    ],
  ),
}

export const thermocouple: PdfSpec = {
  title: 'Changing the thermocouple',
  subtitle: 'Second version of this sheet',
  sections: sections(['Why it ages', 'Which type', 'Taking it out', 'Putting the new one in'], () => [
    'A type R thermocouple drifts by some degrees a year. Change it when the witness cone and the controller no longer agree.',
  ]),
}

export const accountForm: PdfSpec = {
  title: 'Trade account form',
  subtitle: 'March 2026',
  sections: sections(['Your business', 'Your address', 'What you teach or make', 'Two references'], () => [
    'Name: ______________________________',
    'Telephone: __________________________',
  ]),
}

/** The same, as somebody filled it in. */
export const filledForm = (name: string): PdfSpec => ({
  title: 'Trade account form',
  subtitle: `March 2026, filled in by ${name}`,
  sections: sections(['Your business', 'Your address', 'What you teach or make', 'Two references'], () => [
    `Name: ${name}`,
    'Signed: with a pen, and scanned.',
  ]),
})

export const letterhead: PdfSpec = {
  title: 'Hollow Lane School',
  subtitle: 'Hollow Lane, by the kiln field',
  sections: [{ heading: 'To whom it may concern', text: ['We teach pottery to four classes a week, and would buy at trade prices.'] }],
}

/** What came with a lorry, signed for in the yard. */
export const deliveryNote = (number: string, from: string, goods: [what: string, count: string][]): PdfSpec => ({
  title: `Delivery note ${number}`,
  subtitle: `From ${from}`,
  sections: [
    { heading: 'What came', table: [['Goods', 'Pallets'], ...goods] },
    { heading: 'Signed for', text: ['Two sacks torn, written on the driver’s copy. Everything else as ordered.'] },
  ],
})

/** What one client and the shop agreed. */
export const supplyAgreement: PdfSpec = {
  title: 'Supply agreement',
  subtitle: 'Hollow Lane School and Marlpit Pottery Supply, September 2026 to July 2027',
  sections: sections(['What is supplied', 'Prices', 'Deliveries', 'Firing days', 'Payment', 'Ending it'], () => [
    'Clay, glazes and tools as listed, delivered to the back gate on the first Tuesday of a month in term.',
    'Both sides sign two copies; the signed one comes back to us before the first delivery.',
  ]),
}

export const letter: PdfSpec = {
  title: 'A letter',
  subtitle: 'Scanned',
  sections: [
    {
      heading: 'To the pottery',
      text: ['Thank you for the repair of our kiln. It reached cone six again yesterday, for the first time since spring.'],
    },
  ],
}

export const springTimetable: PdfSpec = { ...timetable, title: 'Evening classes, spring 2027', subtitle: 'Ten weeks from 12 April 2027' }

export const controllerSlides = [
  'The controller: switch on, and wait for the zone lights',
  'Choose a programme with the wheel',
  'Set the top temperature and the soak',
  'Press start, and write it into the log',
  'If E3 shows, the thermocouple is broken',
]

export const notebook = `# Glaze notebook

Notes from the bench, newest first.

## Celadon, pale

- Sieve to 100 mesh, twice.
- **Thickness decides**: three seconds in, no more.
- Needs reduction from 1000 °C; in our electric kiln it comes out straw.

## Tenmoku

| test | iron oxide | result |
|---|---|---|
| 14 | 7 % | brown, dull |
| 15 | 8 % | black, breaks to rust |
`

export const orderForm = `<!DOCTYPE html>
<html lang="en"><head><meta charset="utf-8"><title>Order form</title><style>td{border:1px solid #999;padding:8px 60px}</style></head>
<body><h1>Order form</h1><p>Print it, fill it in, and post it with the dispatch address.</p><table><tr><td>Item</td><td>How many</td></tr></table></body></html>
`

export const partRows = (model: string): (string | number)[][] => [
  ['Part', 'Code', 'Price', 'In stock'],
  ...[
    'Element, lower',
    'Element, upper',
    'Thermocouple, type R',
    'Lid seal',
    'Hinge pin',
    'Controller fuse',
    'Brick, side',
    'Brick, floor',
    'Bung',
    'Peephole glass',
  ].map((part, index): (string | number)[] => [
    part,
    `${model}-${String(index + 1).padStart(2, '0')}`,
    Math.round((6 + index * 7.35) * 100) / 100,
    (index * 5) % 9,
  ]),
]

export const materialRows: (string | number)[][] = [
  ['material', 'gives', 'use'],
  ['Feldspar, potash', 'flux, alumina and silica', 'the body of most stoneware glazes'],
  ['Quartz', 'silica', 'glass former'],
  ['Whiting', 'calcium', 'flux above 1200 °C'],
  ['China clay', 'alumina', 'keeps the glaze in suspension'],
  ['Tin oxide', 'white', 'opacity, five to ten per cent'],
  ['Cobalt oxide', 'blue', 'half a per cent is plenty'],
]

export const dateRows: (string | number)[][] = [
  ['class', 'week', 'date'],
  ...Array.from({ length: 10 }, (_, week): (string | number)[] => [
    'Monday: throwing for beginners',
    week + 1,
    new Date(Date.UTC(2027, 0, 11 + week * 7)).toISOString().slice(0, 10),
  ]),
]

export const carriageRows: (string | number)[][] = [
  ['zone', 'up to 25 kg', 'up to 250 kg', 'pallet'],
  ['A: within 50 miles', 9.5, 28, 55],
  ['B: mainland', 14, 42, 85],
  ['C: islands', 31, 96, 'ask'],
]
