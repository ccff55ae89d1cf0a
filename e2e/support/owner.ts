import type { Page } from '@playwright/test'
import { OWNER } from '../../demo/owner'
import { cookieOf } from './upload'

/** Signs in and waits for the desk. */
export async function openDesk(page: Page, url: string): Promise<void> {
  await page.goto(`${url}/desk`)
  await page.getByLabel('E-mail').fill(OWNER.email)
  await page.getByLabel('Password').fill(OWNER.password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('list', { name: 'Files' }).waitFor()
}

/** The owner's requests outside the browser. */
export async function ownerApi(url: string) {
  const cookie = await cookieOf(url)
  return async <T>(path: string, init: RequestInit & { json?: unknown } = {}): Promise<T> => {
    const { json, ...rest } = init
    const response = await fetch(`${url}/api${path}`, {
      ...rest, headers: { cookie, ...json !== undefined && { 'Content-Type': 'application/json' }, ...rest.headers }, body: json === undefined ? rest.body : JSON.stringify(json),
    })
    if (!response.ok) throw Object.assign(new Error(`${path}: ${response.status}`), { status: response.status, problem: await response.json().catch(() => undefined) })
    return (response.status === 204 ? undefined : await response.json()) as T
  }
}

/** Opens a page of the site from the list of pages. */
export async function openPage(page: Page, title: string): Promise<void> {
  await page.locator('.pages a.row', { hasText: title }).click()
  await page.getByRole('textbox', { name: 'The page', exact: true }).waitFor()
}
