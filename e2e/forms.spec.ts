import { expect, test, type Page, type Route } from '@playwright/test'
import { openDesk } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const nameField = (page: Page) => page.getByLabel('Name of the site')
const save = (page: Page) => page.getByRole('button', { name: 'Save', exact: true })
const alerts = (page: Page) => page.locator('.setup .v-input--error, .setup .problem')

async function openSetup(page: Page): Promise<void> {
  await openDesk(page, server.url, '/desk/setup')
  await nameField(page).waitFor()
}

const problem = (status: number, extra: object = {}) => ({
  status,
  contentType: 'application/problem+json',
  body: JSON.stringify({ status, title: 'That did not work.', detail: `Because of ${status}.`, ...extra }),
})

test('what is wrong with a field stands at it: as it is left, as it is sent, and as the server finds it; what was typed stays', async ({
  page,
}) => {
  await openSetup(page)
  const address = page.getByLabel('Public address')
  await address.fill('www.marlpit')
  await address.blur()
  await expect(alerts(page)).toHaveText(/Give the whole address, such as/)
  // Once it is wrong it is looked at as one types.
  await address.fill('https://www.marlpit.example/shop')
  await expect(alerts(page)).toHaveText(/Give the address without a path/)
  await address.fill('https://www.marlpit.example')
  await expect(alerts(page)).toHaveCount(0)

  for (const nothing of ['', '   ']) {
    await nameField(page).fill(nothing)
    await save(page).click()
    await expect(alerts(page)).toHaveText(/Give the site a name/)
    await expect(nameField(page)).toBeFocused()
  }
  await nameField(page).fill('Marlpit 🏺 \u05d7\u05e8\u05e1')
  await page.route('**/api/site', route =>
    route.fulfill(problem(422, { field: 'name', issues: [{ field: 'name', message: 'Give it another name.' }] })),
  )
  await nameField(page).press('Enter')
  await expect(alerts(page)).toHaveText(/Give it another name/)
  await expect(nameField(page)).toBeFocused()
  await page.unroute('**/api/site')
  await nameField(page).press('Enter')
  await expect(page.getByText('Saved. Live pages show it at once.')).toBeVisible()
  await expect(nameField(page)).toHaveValue('Marlpit 🏺 \u05d7\u05e8\u05e1')
})

test('whatever the server answers is said, and what was typed stays; while it is on its way nothing is sent twice', async ({ page }) => {
  await openSetup(page)
  await nameField(page).fill('Kept in spite of all')
  for (const [answer, says] of [
    [(route: Route) => route.fulfill(problem(409)), 'Because of 409.'],
    [(route: Route) => route.fulfill(problem(429)), 'Because of 429.'],
    [(route: Route) => route.fulfill(problem(500)), 'Because of 500.'],
    [(route: Route) => route.fulfill({ status: 500, body: 'nothing' }), 'Something went wrong. Try again.'],
    [(route: Route) => route.abort(), 'Trough cannot be reached.'],
  ] as const) {
    await page.route('**/api/site', answer)
    await save(page).click()
    await expect(page.locator('.setup .problem')).toContainText(says)
    await expect(nameField(page)).toHaveValue('Kept in spite of all')
    await page.unroute('**/api/site')
  }

  let sent = 0
  let answer = () => {}
  const late = new Promise<void>(resolve => (answer = resolve))
  await page.route('**/api/site', async route => {
    sent++
    await late
    await route.continue()
  })
  await save(page).click()
  await nameField(page).press('Enter')
  await nameField(page).press('Enter')
  answer()
  await expect(page.getByText('Saved. Live pages show it at once.')).toBeVisible()
  expect(sent).toBe(1)
})

test('who leaves what was not saved is asked, and stays or goes', async ({ page }) => {
  await openSetup(page)
  await nameField(page).fill('Not saved')
  const leave = () => page.getByRole('link', { name: 'Pages', exact: true }).click()
  await leave()
  const question = page.getByRole('alertdialog', { name: 'Leave what you wrote?' })
  await question.getByRole('button', { name: 'Go on writing' }).click()
  await expect(nameField(page)).toHaveValue('Not saved')
  await leave()
  await question.getByRole('button', { name: 'Leave it' }).click()
  await expect(page.getByRole('heading', { name: 'Pages' })).toBeVisible()
})

test('who passes through a field to leave the form is told nothing, and a form that was sent begins anew without complaint', async ({
  page,
}) => {
  await openDesk(page, server.url)
  await page.getByRole('button', { name: 'New page' }).click()
  await expect(page.getByLabel('Title')).toBeFocused()
  // By the mouse: what moves away between press and release gets no click.
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByLabel('Title')).toHaveCount(0)

  await page.goto(`${server.url}/desk/setup/people`)
  await page.route('**/api/account/password', route => route.fulfill({ status: 204 }))
  await page.getByLabel('The one you have').fill('marlpit-demo')
  await page.getByLabel('The new one').fill('another-marlpit-demo')
  await page.getByRole('button', { name: 'Change the password' }).click()
  await expect(page.getByText('The password is changed')).toBeVisible()
  await expect(page.getByLabel('The new one')).toHaveValue('')
  await expect(page.locator('.v-input--error')).toHaveCount(0)
})
