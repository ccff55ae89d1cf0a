import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { BUILT_IN_LOOKS } from '../../../core/look/builtin'
import type { Use } from '../../../core/files/fileItem'
import type { Problem } from '../../../core/problem'
import { DEFAULT_STYLE } from '../../../core/look/siteStyle'
import { button, pageOf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
let fileId = ''
beforeAll(async () => {
  test = await openTestTrough()
  fileId = (await test.put('list.pdf', '%PDF-1.7\nlist')).id
})
afterAll(() => test.close())

const html = async (slug: string) => (await test.trough.published.find(slug, undefined))!.bytes.toString()
const appearance = BUILT_IN_LOOKS[0]!.appearance

async function pageWearing(title: string, ...looks: string[]) {
  const { pages } = test.trough
  const page = await pages.create({ title })
  const draft = pageOf(
    ...looks.map((look, index) => button({ placement: `bbbbbbbbb${index}`.slice(-10), target: { kind: 'file', id: fileId }, look })),
  )
  await pages.saveDraft(page.id, { title, draft, revision: page.revision })
  await pages.publish(page.id)
  return page
}

describe('looks', () => {
  it('are followed at once by every live button that wears them', async () => {
    const { looks } = test.trough
    const look = await looks.create({ name: 'Kiln red', appearance: { ...appearance, radius: 3 } })
    await pageWearing('Followed', look.id)
    expect(await html('followed')).toContain(`tr-look-${look.id}{padding:0.75rem 1.4375rem`)
    expect(await html('followed')).toContain('border-radius:0.1875rem')
    await looks.change(look.id, { appearance: { ...appearance, radius: 32 } })
    expect(await html('followed')).toContain('border-radius:2rem')
    expect(await html('followed')).not.toContain('border-radius:0.1875rem')
  })

  it('have names of their own', async () => {
    const { looks } = test.trough
    const first = await looks.create({ name: 'Twice', appearance })
    await expect(looks.create({ name: 'Twice', appearance })).rejects.toMatchObject({ status: 409, extra: { field: 'name' } })
    await expect(looks.create({ name: 'Slab', appearance })).rejects.toMatchObject({ status: 409 })
    expect(await looks.change(first.id, { name: 'Twice' })).toMatchObject({ name: 'Twice' })
    await expect(looks.change('slab', { name: 'Mine' })).rejects.toMatchObject({ status: 409 })
    await expect(looks.change('gone', { name: 'Mine' })).rejects.toMatchObject({ status: 404 })
  })

  it('that are worn are not deleted unnoticed; their buttons get another, live and drafted, and nothing else goes live', async () => {
    const { looks, pages } = test.trough
    const look = await looks.create({ name: 'Short-lived', appearance })
    const page = await pageWearing('Worn', look.id, 'rim')
    await pages.saveDraft(page.id, {
      title: 'Worn, and changed',
      draft: pageOf(button({ target: { kind: 'file', id: fileId }, look: look.id, label: 'Drafted' })),
      revision: (await pages.get(page.id)).revision,
    })
    await expect(looks.remove(look.id)).rejects.toMatchObject({
      status: 409,
      extra: {
        places: [
          { pageTitle: 'Worn, and changed', live: true },
          { label: 'Drafted', draft: true, live: false },
        ]
          .map(place => expect.objectContaining(place))
          .reverse(),
      },
    })
    await expect(looks.remove(look.id, 'gone')).rejects.toMatchObject({ status: 400 })
    await looks.remove(look.id, 'strap')
    expect(await html('worn')).toMatch(/tr-button tr-look-strap"[^]*tr-button tr-look-rim"/)
    expect(await html('worn')).not.toContain('Drafted')
    expect(await pages.get(page.id)).toMatchObject({ waiting: true, draft: { content: [{ attrs: { look: 'strap', label: 'Drafted' } }] } })
    await expect(looks.remove('slab', 'rim')).rejects.toMatchObject({ status: 409 })
  })

  it('and buttons filled with a picture hold it back, get another in its place, or do without', async () => {
    const { looks, library, pages } = test.trough
    const put = async (name: string, red: number) =>
      test.put(
        name,
        await sharp({ create: { width: 40, height: 30, channels: 3, background: { r: red, g: 90, b: 60 } } })
          .png()
          .toBuffer(),
      )
    const [first, second] = [await put('first.png', 10), await put('second.png', 200)]
    await test.trough.reading.idle()
    const fill = { kind: 'picture' as const, file: first.id, colour: 'ink' as const, veil: 70 }
    const look = await looks.create({ name: 'Tiled', appearance: { ...appearance, fill } })
    const page = await pageWearing('Tiled', look.id)
    await pages.saveDraft(page.id, {
      title: 'Tiled',
      draft: pageOf(
        button({ target: { kind: 'file', id: fileId }, look: look.id, label: 'Worn' }),
        button({ placement: 'ccccccccc1', target: { kind: 'file', id: fileId }, own: { fill }, label: 'Own' }),
      ),
      revision: (await pages.get(page.id)).revision,
    })
    await pages.publish(page.id)
    expect((await html('tiled')).match(/url\("\/pictures\/first\.png\?width=960/g)).toHaveLength(2)

    const gone = (id: string) => ({ files: [id], folders: [] })
    const held = (await library.remove(gone(first.id)).catch((error: unknown) => error)) as Problem
    expect(
      (held.extra.uses as Use[]).map(({ kind, label, pageTitle, pageId }) => ({ kind, label, pageTitle, onPage: pageId !== null })),
    ).toEqual([
      { kind: 'fill', label: 'Own', pageTitle: 'Tiled', onPage: true },
      { kind: 'look', label: 'Tiled', pageTitle: 'Looks', onPage: false },
    ])
    expect((await library.get(first.id)).uses).toBe(2)
    await library.remove(gone(first.id), { replaceBy: second.id })
    expect((await html('tiled')).match(/url\("\/pictures\/second\.png/g)).toHaveLength(2)

    // In the bin all the same: the veil's colour takes its place, and nothing leads nowhere for it.
    await library.remove(gone(second.id), { despite: true })
    expect(await html('tiled')).not.toContain('url("/pictures')
    expect((await html('tiled')).match(/background:var\(--ink\)/g)).toHaveLength(2)
    expect((await pages.list()).find(({ id }) => id === page.id)).toMatchObject({ broken: 0 })
    await library.restore(gone(second.id))
    await library.remove(gone(second.id), { takeOff: true })
    expect((await looks.list()).find(({ id }) => id === look.id)!.appearance.fill).toEqual({ kind: 'plain', colour: 'ink' })
  })

  it('come in all or none, those that are there just so left out, taken names numbered', async () => {
    const { looks } = test.trough
    const taken = await looks.take([
      ...BUILT_IN_LOOKS,
      { name: 'Slab', appearance: { ...appearance, radius: 40 } },
      { name: 'Fresh', appearance },
    ])
    expect(taken.map(look => look.name)).toEqual(['Slab 2', 'Fresh'])
    expect(await looks.take(taken)).toEqual([])
  })

  it('and pages are fed by the colours and type of the site', async () => {
    const { looks } = test.trough
    await pageWearing('Fed', 'slab')
    await looks.setStyle({
      ...DEFAULT_STYLE,
      dark: null,
      palette: { ...DEFAULT_STYLE.palette, accent: '#8A2B0E' },
      type: { heading: 'serif', text: 'sans' },
    })
    const page = await html('fed')
    expect(page).toContain('--accent:#8A2B0E')
    expect(page).not.toMatch(/@font-face|rel="preload"/)
    await looks.setStyle(DEFAULT_STYLE)
    expect(await html('fed')).toContain(`--accent:${DEFAULT_STYLE.palette.accent}`)
  })
})
