import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import PDFDocument from 'pdfkit'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Store } from '../../store/store'
import { createLooking } from './looking'

let folder: string
let lent = 0
/** A store with one PDF, that counts how often it is lent. */
const store = {
  withFile<T>(_hash: string, use: (path: string) => Promise<T>): Promise<T> {
    lent++
    return use(join(folder, 'a.pdf'))
  },
} as Store

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-looking-'))
  const document = new PDFDocument()
  document.text('Kilns').addPage().text('Glazes').end()
  await writeFile(join(folder, 'a.pdf'), await buffer(document))
})
afterAll(() => rm(folder, { recursive: true }))

const PAGED = { sha256: 'aa', facts: {} }

it('draws a page once, however many ask for it at once or later', async () => {
  const looking = createLooking(store, join(folder, 'derived'))
  try {
    const drawn = await Promise.all(Array.from({ length: 100 }, () => looking.page(PAGED, 1)))
    await looking.page(PAGED, 1)
    expect(lent).toBe(1)
    expect(new Set(drawn.map(bytes => bytes.toString('base64'))).size).toBe(1)
    await looking.page(PAGED, 2)
    expect(lent).toBe(2)
  } finally {
    await looking.close()
  }
})
