import { afterEach, expect, it } from 'vitest'
import { clearDesk, json, mountPart, refusal, standInServer } from '~/testing/desk'
import FileContents from './FileContents.vue'

afterEach(clearDesk)

const FILE = { id: 'f', sha256: '0', title: 'Glaze recipes' }
const shown = async (answer: () => Response) => {
  standInServer(answer)
  return mountPart(FileContents, { file: FILE })
}
/** What scrolls can be reached by keys, and has a name (WCAG 2.2, 2.1.1 and 4.1.2). */
const group = (name: string) => document.querySelector(`[role=group][tabindex="0"][aria-label="${name}"]`)

it('shows the sheets of a table one at a time, with the letters and numbers of their cells', async () => {
  const sheets = [
    {
      name: 'Celadon',
      rows: [
        ['Glaze', 'Quartz'],
        ['Pale', '28'],
      ],
      cut: false,
    },
    { name: 'Honey', rows: [], cut: false },
  ]
  const contents = await shown(() => json({ kind: 'sheets', sheets }))
  expect(contents.findAll('[role=tab]').map(tab => tab.text())).toEqual(['Celadon', 'Honey'])
  const table = group('Table of Glaze recipes')!.querySelector('table')!
  expect([...table.querySelectorAll('thead th')].map(cell => cell.textContent)).toEqual(['A', 'B'])
  expect([...table.querySelectorAll('tbody tr')].map(row => row.textContent)).toEqual(['1GlazeQuartz', '2Pale28'])
})

it('lists what is in a zip, and says what is locked and that there is more', async () => {
  const entries = [
    { name: 'charts/raku.pdf', size: 2100, locked: false },
    { name: 'prices.pdf', size: 10, locked: true },
  ]
  const contents = await shown(() => json({ kind: 'entries', entries, cut: true }))
  const rows = [...group('What is in Glaze recipes')!.querySelectorAll('tbody tr')].map(row => row.textContent)
  expect(rows).toEqual(['charts/raku.pdf2.1 kB', 'prices.pdflocked10 B'])
  expect(contents.text()).toContain('And more.')
})

it('says why nothing can be shown', async () => {
  const contents = await shown(() => refusal(422, 'This file cannot be shown.', 'Download it to see it.'))
  expect(contents.text()).toBe('This file cannot be shown. Download it to see it.')
})
