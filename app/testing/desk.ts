import { mountSuspended } from '@nuxt/test-utils/runtime'
import { vi } from 'vitest'
import { nextTick, type Component } from 'vue'

// What menus and dialogs ask where they may lie; this page has no window (CSSOM View, 12).
Object.assign(globalThis, { visualViewport: new EventTarget() })

/** A request of the desk, as a server would see it. */
export interface Asked {
  method: string
  path: string
  body: unknown
}
export type Answering = (asked: Asked) => Response | Promise<Response> | undefined

export const json = (value: unknown, status = 200) =>
  new Response(status === 204 ? null : JSON.stringify(value), { status, headers: { 'Content-Type': 'application/json' } })

/** A problem as the API tells it (RFC 9457). */
export const refusal = (status: number, title: string, detail: string, extra: object = {}) => json({ title, detail, ...extra }, status)

/** Stands for the server: answers what it is told to, and keeps what it was asked. */
export function standInServer(answer: Answering): Asked[] {
  const asked: Asked[] = []
  vi.stubGlobal('fetch', async (address: string, { method = 'GET', body }: { method?: string; body?: string } = {}) => {
    const request = { method, path: String(address), body: body === undefined ? undefined : (JSON.parse(body) as unknown) }
    asked.push(request)
    return (await answer(request)) ?? json({}, 404)
  })
  return asked
}

/** Lets what was begun go on until it waits for something from outside. */
export async function settled(): Promise<void> {
  for (let turn = 0; turn < 8; turn++) {
    await new Promise(resolve => setTimeout(resolve))
    await nextTick()
  }
}

const mounted = new Set<{ unmount: () => void }>()

/** Mounts a part of the desk in the page, so that its dialogs are found there as well. */
export async function mountPart(part: Component, props: Record<string, unknown> = {}) {
  const wrapper = await mountSuspended(part, { props, attachTo: document.body })
  mounted.add(wrapper)
  await settled()
  return wrapper
}

/** Takes away what a test has mounted and what stood in for the server: what goes on behind it would meet a page that is gone. */
export async function clearDesk(): Promise<void> {
  for (const wrapper of mounted) wrapper.unmount()
  mounted.clear()
  await settled()
  vi.unstubAllGlobals()
  document.body.innerHTML = ''
}

/** The field with a label. */
export function fieldNamed(name: string): HTMLInputElement | HTMLTextAreaElement {
  const label = [...document.querySelectorAll('label')].find(each => each.textContent?.trim() === name && each.htmlFor)
  const field = label && document.getElementById(label.htmlFor)
  if (!field) throw new Error(`There is no field “${name}”.`)
  return field as HTMLInputElement
}

export function buttonNamed(name: string): HTMLButtonElement {
  const button = [...document.querySelectorAll('button')].find(
    each => (each.getAttribute('aria-label') ?? each.textContent)?.trim() === name,
  )
  if (!button) throw new Error(`There is no button “${name}”.`)
  return button
}

export async function press(name: string): Promise<void> {
  buttonNamed(name).click()
  await settled()
}

export async function write(name: string, text: string): Promise<void> {
  const field = fieldNamed(name)
  field.value = text
  field.dispatchEvent(new Event('input', { bubbles: true }))
  await settled()
}

/** What is said to be wrong, at fields or below them. */
export const complaints = (): string[] =>
  [...document.querySelectorAll('.v-messages__message, [role=alert]')].map(each => each.textContent?.trim() ?? '').filter(Boolean)

/** What is said to be wrong at the field with a label. */
export const complaintsAt = (name: string): string[] =>
  [...(fieldNamed(name).closest('.v-input')?.querySelectorAll('.v-messages__message') ?? [])].map(each => each.textContent?.trim() ?? '')
