import { expect, type Locator, type Page } from '@playwright/test'
import { cookieOf } from './upload'

/** Signs in, with the session of the tests before, opens a board, and waits for the desk. */
export async function openDesk(page: Page, url: string, board = '/desk'): Promise<void> {
  // From the start: a browser that is told only now to hand over its file chooser may open it before, where a key opens it.
  page.on('filechooser', () => undefined)
  await carry(page, url, await cookieOf(url))
  await page.goto(url + board)
  await page.getByRole('grid', { name: 'Files' }).waitFor()
  if (process.env.TROUGH_TEST_SLOW) await slow(page, Number(process.env.TROUGH_TEST_SLOW))
}

/** Gives a browser the cookies of somebody who signed in. */
export async function carry(page: Page, url: string, cookie: string): Promise<void> {
  const cookies = cookie.split('; ').map(pair => pair.split('=') as [string, string])
  await page.context().addCookies(cookies.map(([name, value]) => ({ name, value, url, httpOnly: true, sameSite: 'Lax' })))
}

/** As on a machine that many times slower: what a test does too early shows. */
async function slow(page: Page, rate: number): Promise<void> {
  const session = await page.context().newCDPSession(page)
  await session.send('Emulation.setCPUThrottlingRate', { rate })
}

/** Makes an empty Trough one's own, with the code that its console says; leaves the browser at the desk. */
export async function setUp(page: Page, server: { url: string; output: () => string }): Promise<void> {
  await page.goto(`${server.url}/desk`)
  await page.getByLabel('Set-up code').fill(/[A-Z2-9]{4}-[A-Z2-9]{4}-[A-Z2-9]{4}/.exec(server.output())![0])
  await page.getByLabel('Name of your site').fill('Marlpit')
  await page.getByLabel('Your e-mail').fill('me@marlpit.example')
  await page.getByLabel(/A password/).fill('a long password')
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.getByRole('heading', { name: 'Pages' }).waitFor()
}

/** The owner's requests outside the browser. */
export async function ownerApi(url: string) {
  const cookie = await cookieOf(url)
  return async <T>(path: string, init: RequestInit & { json?: unknown } = {}): Promise<T> => {
    const { json, ...rest } = init
    const response = await fetch(`${url}/api${path}`, {
      ...rest,
      headers: { cookie, ...(json !== undefined && { 'Content-Type': 'application/json' }), ...rest.headers },
      body: json === undefined ? rest.body : JSON.stringify(json),
    })
    if (!response.ok)
      throw Object.assign(new Error(`${path}: ${response.status}`), {
        status: response.status,
        problem: await response.json().catch(() => undefined),
      })
    return (response.status === 204 ? undefined : await response.json()) as T
  }
}

/** Opens a page of the site from the list of pages. */
export async function openPage(page: Page, title: string): Promise<void> {
  await page.locator('.pages a.row', { hasText: title }).click()
  await expect(writing(page)).toBeFocused()
}

const writing = (page: Page) => page.getByRole('textbox', { name: 'The page', exact: true })

/** Makes a page of its own for a test; gives its identity. It can be written on once its draft is there. */
export async function newPage(page: Page, title: string): Promise<string> {
  await page.getByRole('button', { name: 'New page' }).click()
  await page.getByLabel('Title', { exact: true }).fill(title)
  await page.getByRole('button', { name: 'Make the page' }).click()
  await page.waitForURL(/\/desk\/pages\//)
  await expect(writing(page)).toBeFocused()
  return page.url().split('/').pop()!.split('?')[0]!
}

/** Puts a part on the page by typing / and its name. */
export async function add(page: Page, words: string): Promise<void> {
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill(words)
  await page.getByRole('option', { name: new RegExp(`^${words}`) }).click()
}

/** The rows of the library that hold some text. */
export const row = (page: Page, text: string | RegExp): Locator =>
  page.getByLabel('Files', { exact: true }).getByRole('row').filter({ hasText: text })

/** Shows in the library what the Find field finds, in whatever folder it lies. */
export async function showInLibrary(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find files, pages and settings' }).fill(words)
  await page.keyboard.press('Control+Enter')
  await page.getByRole('button', { name: `Take away: “${words}”` }).waitFor()
}

/** Opens a folder of those that are shown. */
export async function openFolder(page: Page, name: string): Promise<void> {
  await page.locator('.folder-strip a.name', { hasText: name }).click()
  await page.getByRole('navigation', { name: 'Way to this folder' }).getByText(name, { exact: true }).waitFor()
}

/** Chooses one of what a list of the desk offers. */
export async function choose(within: Page | Locator, name: string, option: string | RegExp): Promise<void> {
  const list = within.getByRole('combobox', { name })
  // Vuetify hears the click on what lies around the field.
  await list.click({ force: true })
  const chosen = list.page().getByRole('option', { name: option, exact: true })
  await chosen.click()
  // The field takes the keyboard back when its list has gone.
  await chosen.waitFor({ state: 'hidden' })
}

/** What was copied, once it is what is waited for: a browser's clipboard is filled a moment after the click. */
export async function copied(page: Page, like: RegExp): Promise<string> {
  let text = ''
  await expect.poll(async () => (text = await page.evaluate(() => navigator.clipboard.readText()))).toMatch(like)
  return text
}
