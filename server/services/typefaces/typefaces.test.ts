import { afterAll, beforeAll, expect, it } from 'vitest'
import { eq, sql } from 'drizzle-orm'
import { filesOfOwn, ownTypefaceSchema } from '../../../core/look/ownTypeface'
import { DEFAULT_STYLE } from '../../../core/look/siteStyle'
import { fontFiles } from '../../db/schema'
import { allowing, packagedFont, trueType } from '../../testing/fonts'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const html = async () => (await test.trough.published.find('set', undefined))!.bytes.toString()

it('sets the site in a font of the library, which is served under an address of its own', async () => {
  const { typefaces, looks, pages } = test.trough
  const page = await pages.create({ title: 'Set' })
  await pages.publish(page.id)
  const own = await typefaces.take((await test.put('Lora.woff2', await packagedFont('lora'))).id)
  expect(ownTypefaceSchema.parse(own)).toMatchObject({ name: 'Lora', generic: 'serif' })
  await looks.setStyle({ ...DEFAULT_STYLE, own: [own], type: { heading: own.id, text: 'hanken' } })
  const [latin] = own.cuts[0]!.parts
  const shown = await html()
  expect(shown).toContain(`<link rel="preload" href="/_typefaces/${latin!.file}.woff2" as="font"`)
  expect(shown).toContain(`--heading:"${own.id}","${own.id} stand-in",serif`)
  const { bytes, representation } = await typefaces.find(latin!.file)
  expect(bytes.toString('latin1', 0, 4)).toBe('wOF2')
  expect(representation.headers).toMatchObject({ 'Content-Type': 'font/woff2', 'Content-Length': bytes.length })
  // The same font is the same typeface.
  expect(await typefaces.take((await test.put('Again.woff2', await packagedFont('lora'))).id)).toEqual(own)
})

it('takes a bold font beside a regular one, whichever came first, and no other', async () => {
  const { typefaces } = test.trough
  const [plain, bold] = await Promise.all(
    [400, 700].map(async weight => (await test.put(`Karla ${weight}.ttf`, await trueType('karla', weight))).id),
  )
  const one = await typefaces.take(plain!)
  const both = await typefaces.take(bold!, one)
  expect(both.cuts.map(({ least }) => least)).toEqual([400, 700])
  expect(both).toMatchObject({ name: 'Karla', fallback: one.fallback })
  expect((await typefaces.take(plain!, await typefaces.take(bold!))).fallback).toEqual(one.fallback)
  await expect(typefaces.take(plain!, one)).rejects.toMatchObject({ status: 422, title: '“Karla” has these weights already.' })
  await expect(typefaces.take((await test.put('f.woff2', await packagedFont('figtree'))).id, both)).rejects.toMatchObject({ status: 422 })
})

it('refuses what is no font, what may not be shown, and styles with fonts that are not there', async () => {
  const { typefaces, looks } = test.trough
  const take = async (name: string, bytes: Buffer) => typefaces.take((await test.put(name, bytes)).id)
  await expect(take('list.pdf', Buffer.from('%PDF-1.7'))).rejects.toMatchObject({ status: 422, detail: expect.stringContaining('no font') })
  await expect(take('closed.ttf', allowing(await trueType('karla', 500), 2))).rejects.toMatchObject({
    status: 422,
    title: '“Closed” cannot be taken.',
  })
  await expect(typefaces.take('gone')).rejects.toMatchObject({ status: 404 })
  await expect(typefaces.find('0'.repeat(32))).rejects.toMatchObject({ status: 404 })
  const own = await take('open.ttf', await trueType('bitter', 500))
  const forged = { ...own, cuts: [{ least: 400, most: 400, parts: [{ part: 'latin' as const, file: 'f'.repeat(32) }] }] }
  await expect(looks.setStyle({ ...DEFAULT_STYLE, own: [forged] })).rejects.toMatchObject({ status: 422 })
  expect((await looks.style()).own.map(({ name }) => name)).not.toContain('Bitter')
})

it('forgets fonts that no style has named for a month', async () => {
  const { typefaces, database, looks } = test.trough
  const unused = await typefaces.take((await test.put('n.woff2', await packagedFont('nunito-sans'))).id)
  await database.update(fontFiles).set({ made: sql`now() - interval '31 days'` })
  await typefaces.take((await test.put('b.woff2', await packagedFont('bitter'))).id)
  const [gone] = filesOfOwn([unused])
  expect(await typefaces.bytesOf(gone!)).toBeUndefined()
  const kept = filesOfOwn((await looks.style()).own)
  expect(kept.length).toBeGreaterThan(0)
  for (const name of kept) expect((await database.select().from(fontFiles).where(eq(fontFiles.name, name))).length).toBe(1)
})
