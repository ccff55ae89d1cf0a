import { expect, test, type Page } from '@playwright/test'
import { OWNER, YARD } from '../demo/owner'
import { choose, openDesk, openFolder, ownerApi, row } from './support/owner'
import { tokenFor } from './support/people'
import { makeData, startServer, type RunningServer } from './support/server'

/* Helpers in the browser: invited, come, at work within their rights, without their password, gone. */

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const PASSWORD = 'a pallet and a half'

async function signInAs(page: Page, { email, password }: { email: string; password: string }): Promise<void> {
  await page.goto(`${server.url}/desk`)
  await page.getByLabel('E-mail').fill(email)
  await page.getByLabel('Password', { exact: true }).fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
}

test('a helper is invited in five actions, comes by the link of the message, and finds what they may do', async ({ page, browser }) => {
  await openDesk(page, server.url, '/desk/people')
  // The five: press, write, open the list, choose a folder, press.
  await page.getByRole('button', { name: 'Invite somebody' }).click()
  await page.getByLabel('Their e-mail address').fill('lorry@marlpit.example')
  await page.getByRole('combobox', { name: 'Where in the library' }).click({ force: true })
  await page.getByRole('option', { name: 'Deliveries', exact: true }).click()
  await page.getByRole('button', { name: 'Invite', exact: true }).click()
  await expect(page.getByText('A message to lorry@marlpit.example is in the outbox.')).toBeVisible()
  await expect(page.getByRole('row', { name: /lorry@marlpit\.example.*Puts files in: Deliveries.*invited/ })).toBeVisible()

  const helper = await (await browser.newContext()).newPage()
  await helper.goto(`${server.url}/desk/join#${await tokenFor(server.url, 'lorry@marlpit.example')}`)
  await expect(helper.getByRole('heading', { name: 'Help with Marlpit Pottery Supply' })).toBeVisible()
  await helper.getByLabel('A password of your own').fill('short')
  await helper.getByRole('button', { name: 'Come in' }).click()
  await expect(helper.getByText('Use at least 10 characters.')).toBeVisible()
  await helper.getByLabel('Your name').fill('Lorry')
  await helper.getByLabel('A password of your own').fill(PASSWORD)
  await helper.getByRole('button', { name: 'Come in' }).click()
  await expect(helper.getByRole('heading', { name: 'What you can do here' })).toBeVisible()
  await expect(helper.getByText('In “Deliveries” and below: see files, put files in, put in new editions')).toBeVisible()
  await expect(helper.locator('.folder-strip')).toHaveCount(1)

  // The owner sees that they came, without asking.
  await expect(page.getByRole('row', { name: /Lorry/ })).toBeVisible()
  await helper.close()
})

test('whoever puts files in does that, and finds no way to more', async ({ page }) => {
  await signInAs(page, YARD)
  await page.getByRole('heading', { name: 'What you can do here' }).waitFor()
  await expect(page.getByRole('button', { name: 'Put files in…' })).toBeHidden()
  await openFolder(page, 'Deliveries')
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Put files in…' }).click()])
  await chooser.setFiles([{ name: 'delivery-note-2026-11-27.txt', mimeType: 'text/plain', buffer: Buffer.from('one pallet') }])
  await row(page, 'Delivery note').first().waitFor()
  await expect(row(page, /TXT/)).toBeVisible()
  await row(page, /TXT/).getByRole('link').click()
  await expect(page.getByRole('button', { name: 'Next edition…' })).toBeVisible()
  for (const name of ['Delete…', 'Change the address…', 'Choose a picture…', 'Send this file to…'])
    await expect(page.getByRole('button', { name })).toHaveCount(0)
  await expect(page.getByLabel('Title', { exact: true })).toHaveAttribute('readonly')
  await page.getByRole('button', { name: 'Account and setup' }).click()
  await expect(page.locator('.v-menu .v-list-item')).toHaveText(['Password and sign-in', 'Keys', 'Sign out'])
  // A board that is not theirs leads back, and says why.
  for (const board of ['people', 'gates', 'setup', 'pages/home', 'outbox']) {
    await page.goto(`${server.url}/desk/${board}`)
    await expect(page.getByText('That board is not among what you may do here.')).toBeVisible()
  }
  const { items } = await (await ownerApi(server.url))<{ items: { fileName: string; id: string }[] }>('/files?q=2026-11-27')
  const { editions } = await (await ownerApi(server.url))<{ editions: { by: string }[] }>(`/files/${items[0]!.id}`)
  expect(editions[0]!.by).toBe(YARD.email)
})

test('what is allowed changes while they work, and being let go ends it', async ({ page, browser }) => {
  await signInAs(page, YARD)
  await openFolder(page, 'Deliveries')
  await row(page, 'Delivery note 4471').getByRole('link').click()
  await expect(page.getByRole('button', { name: 'Delete…' })).toHaveCount(0)

  const owner = await (await browser.newContext()).newPage()
  await openDesk(owner, server.url, '/desk/people')
  await owner.getByRole('button', { name: 'Yard', exact: true }).click()
  await choose(owner.getByRole('region', { name: 'Yard' }), 'What they may do', /^Looks after the library/)
  await expect(owner.getByRole('row', { name: /Yard.*Looks after the library: Deliveries/ })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Delete…' })).toBeVisible()
  await page.getByLabel('Title', { exact: true }).fill('Delivery note 4471, signed')
  await page.keyboard.press('Enter')
  await expect(row(page, 'Delivery note 4471, signed')).toBeVisible()

  await owner.goto(`${server.url}/desk/setup/log?who=${encodeURIComponent(YARD.email)}`)
  await expect(owner.getByRole('row', { name: /yard@marlpit\.example.*changed a file: Delivery note 4471, signed/ }).first()).toBeVisible()
  await owner.getByLabel('Find in the log').fill('nothing of the kind')
  await expect(owner.getByText('Nothing like that.')).toBeVisible()

  await owner.goto(`${server.url}/desk/people`)
  await owner.getByRole('button', { name: 'Yard', exact: true }).click()
  await owner.getByRole('button', { name: 'Let them go…' }).click()
  await owner.getByRole('button', { name: 'Let them go', exact: true }).click()
  await expect(owner.getByText('Yard no longer works here.')).toBeVisible()
  // Without a touch: what it shows is nobody's now.
  await expect(page).toHaveURL(/sign-in$/)
  await owner.close()
})

test('a lost password is had again by e-mail', async ({ page }) => {
  await page.goto(`${server.url}/desk`)
  await page.getByRole('link', { name: 'Lost your password?' }).click()
  // The door before has a field of that name, too.
  await expect(page.getByRole('heading', { name: 'Another password' })).toBeVisible()
  await page.getByLabel('E-mail').fill(OWNER.email)
  await page.getByRole('button', { name: 'Send me a link' }).click()
  await expect(page.getByRole('heading', { name: 'Look into your messages' })).toBeVisible()
  const token = await tokenFor(server.url, OWNER.email)
  await page.goto(`${server.url}/desk/join#${token}`)
  await page.getByLabel('A password of your own').fill(PASSWORD)
  await page.getByRole('button', { name: 'Change it' }).click()
  await expect(page.getByRole('heading', { name: 'Pages' })).toBeVisible()
  await page.goto('about:blank')
  await page.goto(`${server.url}/desk/join#${token}`)
  await expect(page.getByRole('heading', { name: 'That link does not lead in' })).toBeVisible()
})
