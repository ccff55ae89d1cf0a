import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { button, pageOf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const HOST = 'localhost:4180'

describe('an address that is pasted', () => {
  it('is the file or page of this site that is there, or was before it moved', async () => {
    const { trough } = test
    const file = await test.put('prices.pdf', '%PDF-1.7\nprices')
    const page = await trough.pages.create({ title: 'Kilns' })
    await trough.library.change(file.id, { handle: 'list.pdf' })
    await trough.pages.change(page.id, { slug: 'machines' })
    const led = { target: { kind: 'file', id: file.id }, title: file.title }
    expect(await trough.recognising.recognise(`http://${HOST}/files/list.pdf?save`, HOST)).toEqual(led)
    expect(await trough.recognising.recognise('/files/prices.pdf', HOST)).toEqual(led)
    expect(await trough.recognising.recognise('https://www.marlpit.example/files/list.pdf', HOST)).toMatchObject({
      target: { kind: 'address' },
    })
    await trough.site.set({ name: 'Marlpit', address: 'https://www.marlpit.example' })
    expect(await trough.recognising.recognise('http://www.marlpit.example/files/list.pdf', HOST)).toEqual(led)
    for (const slug of ['kilns', 'machines'])
      expect(await trough.recognising.recognise(`/${slug}`, HOST)).toEqual({ target: { kind: 'page', id: page.id }, title: 'Kilns' })
    await expect(trough.recognising.recognise('/files/never.pdf', HOST)).rejects.toMatchObject({ status: 404 })
    // An address whose escapes are none (RFC 3986, 2.1).
    await expect(trough.recognising.recognise('/files/%E0%A4%A', HOST)).rejects.toMatchObject({ status: 404 })
    await expect(trough.recognising.recognise('javascript:alert(1)', HOST)).rejects.toMatchObject({ status: 422 })
  })
})

describe('a button that leads to a page', () => {
  it('holds publishing back until that page is live, follows it, and is told of before the page goes', async () => {
    const { pages, published } = test.trough
    const to = await pages.create({ title: 'Workshop' })
    const from = await pages.create({ title: 'Start' })
    const html = async () => (await published.find('start', undefined))!.bytes.toString()
    await pages.saveDraft(from.id, {
      title: 'Start',
      draft: pageOf(
        button({ target: { kind: 'page', id: to.id }, label: 'To the workshop' }),
        button({ placement: 'bbbbbbbbbb', target: { kind: 'page', id: from.id }, label: 'Stay' }),
      ),
      revision: from.revision,
    })
    await expect(pages.publish(from.id)).rejects.toMatchObject({
      status: 409,
      extra: { broken: [{ fault: 'not-live', placement: { label: 'To the workshop' } }] },
    })
    expect((await pages.get(from.id)).broken).toBe(1)
    await pages.publish(to.id)
    expect((await pages.get(from.id)).broken).toBe(0)
    await pages.publish(from.id)
    expect(await html()).toContain('href="/workshop"')
    await pages.change(to.id, { slug: 'the-workshop' })
    expect(await html()).toContain('href="/the-workshop"')
    for (const go of [() => pages.unpublish(to.id), () => pages.remove(to.id)])
      await expect(go()).rejects.toMatchObject({
        status: 409,
        extra: { uses: [{ pageTitle: 'Start', label: 'To the workshop', live: true }] },
      })
    await pages.unpublish(to.id, { despite: true })
    expect(await html()).not.toContain('To the workshop')
    await pages.remove(to.id, { despite: true })
    expect((await pages.get(from.id)).broken).toBe(1)
    // What leads out of the site is never missing.
    const { revision } = await pages.get(from.id)
    await pages.saveDraft(from.id, {
      title: 'Start',
      draft: pageOf(
        button({ target: { kind: 'address', href: 'https://www.example.com/' } }),
        button({ placement: 'bbbbbbbbbb', target: { kind: 'email', address: 'shop@example.com' } }),
      ),
      revision,
    })
    expect((await pages.get(from.id)).broken).toBe(0)
  })
})
