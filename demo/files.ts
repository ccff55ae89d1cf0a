import { zipSync } from 'fflate'
import { makeForm, makeList, makeSheet } from './office'
import { makePdf } from './pdf'
import { makePlan, makeTile, makeTone } from './pictures'
import * as texts from './texts'

export interface DemoFile { name: string, title?: string, bytes: Buffer }

const NOVEMBER = new Date('2026-11-02T09:00:00Z')
const SEPTEMBER = new Date('2026-09-07T09:00:00Z')

/** The files of the library, oldest first. */
export async function makeFiles(): Promise<DemoFile[]> {
  const celadon = await makeTile({ base: '#8fae9c', pool: '#6b9484' }, 3)
  const tenmoku = await makeTile({ base: '#4a2c1c', pool: '#1e120c' }, 5)
  const chun = await makeTile({ base: '#7f9bb8', pool: '#5b7ba3' }, 8)
  const csv = [['code', 'clay body', 'bags in stock'], ...texts.stockRows].map(row => row.map(cell => /,/.test(String(cell)) ? `"${cell}"` : cell).join(',')).join('\r\n')

  return [
    { name: 'studio-plan.svg', bytes: makePlan() },
    { name: 'kiln-finished.wav', title: 'Kiln finished tone', bytes: makeTone() },
    { name: 'Marlpit K60 manual.pdf', title: 'K60 kiln manual', bytes: await makePdf(texts.kilnManual('K60'), SEPTEMBER) },
    { name: 'firing-chart-stoneware.pdf', bytes: await makePdf(texts.firingChart('Stoneware', 1260), SEPTEMBER) },
    { name: 'firing-chart-earthenware.pdf', bytes: await makePdf(texts.firingChart('Earthenware', 1080), SEPTEMBER) },
    { name: 'sds-marl-stoneware.pdf', title: 'Safety data sheet: Marl stoneware', bytes: await makePdf(texts.safetySheet('Marl stoneware', 'Not classified while wet. Dry dust may damage the lungs over years (quartz).', 'After breathing dust: fresh air. Eyes: rinse with water.'), NOVEMBER) },
    { name: 'sds-tin-white-glaze.pdf', title: 'Safety data sheet: Tin white glaze', bytes: await makePdf(texts.safetySheet('Tin white glaze', 'Irritates the eyes. Dust may damage the lungs over years (quartz).', 'Eyes: rinse for fifteen minutes with water.'), NOVEMBER) },
    { name: 'sds-copper-carbonate.pdf', title: 'Safety data sheet: Copper carbonate', bytes: await makePdf(texts.safetySheet('Copper carbonate', 'Harmful if swallowed. Very toxic to life in water.', 'If swallowed: rinse the mouth, call a doctor, show this sheet.'), NOVEMBER) },
    { name: 'mixing-glaze-guide.pdf', title: 'Mixing a glaze from powder', bytes: await makePdf(texts.glazeGuide, SEPTEMBER) },
    { name: 'glaze-recipes.xlsx', bytes: await makeSheet(texts.recipeRows) },
    { name: 'stock-list-2026-11-20.csv', title: 'Stock list', bytes: Buffer.from(csv) },
    { name: 'test-tile-celadon.png', bytes: celadon },
    { name: 'test-tile-tenmoku.png', bytes: tenmoku },
    { name: 'test-tile-pictures.zip', bytes: Buffer.from(zipSync({ 'celadon.png': celadon, 'tenmoku.png': tenmoku, 'chun.png': chun }, { level: 0, mtime: NOVEMBER })) },
    { name: 'joining-form.docx', title: 'Class joining form', bytes: await makeForm('Joining form', 'Fill this in and bring it to the first evening.', ['Name', 'Telephone', 'E-mail', 'Class', 'Have you thrown before?', 'Anything we should know']) },
    { name: 'packing-list.docx', title: 'What to bring to a class', bytes: await makeList('What to bring', ['Apron', 'Towel', 'Notebook', 'A mug that you like', 'Short fingernails']) },
    { name: 'timetable-2027-01.pdf', title: 'Class timetable, winter 2027', bytes: await makePdf(texts.timetable, NOVEMBER) },
    { name: 'price-list-latest.pdf', title: 'Price list (latest)', bytes: await makePdf(texts.priceList('Price list', 'September 2026', 0.97), SEPTEMBER) },
    { name: 'trade-price-list-2026-11.pdf', title: 'Trade price list', bytes: await makePdf(texts.priceList('Trade price list', 'November 2026', 0.8), NOVEMBER) },
    { name: 'price-list-2026-11.pdf', title: 'Price list', bytes: await makePdf(texts.priceList('Price list', 'November 2026', 1), NOVEMBER) },
  ]
}
