import { expect, test, type Locator, type Page } from '@playwright/test'
import { openDesk } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

/** Goes on by Tab, or back, until something has the keyboard; what takes longer nobody finds. */
async function reach(page: Page, wanted: Locator, { back = false, most = 40 } = {}): Promise<void> {
  await wanted.first().waitFor()
  for (let presses = 0; presses <= most; presses++) {
    if (await wanted.first().evaluate(element => element === document.activeElement || element.contains(document.activeElement))) return
    await page.keyboard.press(back ? 'Shift+Tab' : 'Tab')
  }
  throw new Error(`Not reached within ${most} presses: ${String(wanted)}`)
}

/** Opens a list, and takes what begins with a word. */
async function pick(page: Page, name: string, word: string): Promise<void> {
  await reach(page, page.getByRole('combobox', { name }))
  await page.keyboard.press('ArrowDown')
  const option = page.getByRole('option', { name: word, exact: true })
  await option.waitFor()
  for (let presses = 0; !(await option.evaluate(element => element === document.activeElement)); presses++) {
    expect(presses).toBeLessThan(20)
    await page.keyboard.press('ArrowDown')
  }
  await page.keyboard.press('Enter')
}

for (const width of [1280, 390])
  test(`the board of downloads is used by key alone, at ${width} px`, async ({ page }) => {
    await openDesk(page, server.url)
    await page.setViewportSize({ width, height: 800 })
    await page.goto(`${server.url}/desk/downloads`)
    const press = (name: string | RegExp) =>
      reach(page, page.getByRole('button', { name, exact: true })).then(() => page.keyboard.press('Enter'))

    // The time, how it is told apart, and one bar of it.
    await page.getByRole('img', { name: /^Downloads over time/ }).waitFor()
    await page.locator('#work').focus()
    await pick(page, 'Which time', 'Last 90 days')
    await expect(page).toHaveURL(/span=90/)
    await pick(page, 'How bars are told apart', 'Bars by country')
    await expect(page).toHaveURL(/stack=country/)
    // Keys go along the bars of before until these are there.
    await expect(page.getByRole('progressbar', { name: 'Adding up the downloads' })).toHaveCount(0)
    await reach(page, page.getByRole('group', { name: /^Bars of downloads/ }))
    await page.keyboard.press('End')
    await page.keyboard.press('ArrowLeft')
    // What a bar says is read out; its days are those of the board then.
    const said = page.getByRole('group', { name: /^Bars of downloads/ }).getByRole('status')
    await expect(said).toContainText('United Kingdom')
    await page.keyboard.press('Enter')
    await expect(page).toHaveURL(/span=days/)
    await expect(page.locator('.sum')).toContainText('download')
    // A day is told by its hours, of which two days of the year have one more or less.
    await press('The same in numbers')
    const hours = page.getByRole('region', { name: 'Downloads over time in numbers' }).getByRole('row')
    await expect.poll(() => hours.count()).toBeGreaterThan(22)

    // Back, and one country of the list alone.
    await page.goBack()
    await expect(page).toHaveURL(/span=90/)
    await pick(page, 'By what the list is made', 'by country')
    const rows = page
      .getByRole('region', { name: /^Downloads by country/ })
      .getByRole('row')
      .getByRole('button')
    await reach(page, rows)
    const country = await rows.first().innerText()
    await page.keyboard.press('Enter')
    await press('Show this alone')
    const chip = page.getByRole('button', { name: `Not only ${country}` })
    await expect(chip).toBeVisible()
    await reach(page, chip, { back: true, most: 60 })
    await page.keyboard.press('Enter')
    await expect(chip).toHaveCount(0)

    // The log, what was missed, and numbers of before.
    await reach(page, page.getByRole('button', { name: 'Log', exact: true }), { back: true })
    await page.keyboard.press('Enter')
    await reach(page, page.getByLabel('Find in the log'))
    await page.keyboard.type('kiln')
    await expect(page).toHaveURL(/show=log/)
    await reach(page, page.getByRole('button', { name: 'Missed', exact: true }), { back: true })
    await page.keyboard.press('Enter')
    await expect(page).toHaveURL(/show=misses/)
  })
