import { describe, expect, it } from 'vitest'
import { problemsOf } from '../testing/html'
import { NEW_SITE, PDF_FACTS, ZIP_FACTS, knowing, pageOf, shelf } from '../testing/pages'
import { renderPage } from '../page/document'
import { pageDocumentSchema } from '../page/schema'
import type { TargetFacts } from '../page/placeholders'

const photo = (id: string): TargetFacts => ({
  ...PDF_FACTS,
  id,
  handle: `${id}.jpg`,
  title: `Tile ${id} <1>`,
  description: '',
  mediaType: 'image/jpeg',
  picture: { version: 'c', width: 1000, height: 1250 },
})
const FILES = [photo('a'), ZIP_FACTS, photo('b'), photo('c')]
const document = pageOf(shelf({ layout: 'pictures' }))
const html = renderPage(NEW_SITE, { slug: 'x', title: 'X', description: '', document }, knowing(...FILES))
/** What is seen large, by its identity. */
const large = [...html.matchAll(/<figure class="tr-large" id="([^"]+)" popover>([\s\S]*?)<\/figure>/g)].map(([, id, inner]) => ({
  id: id!,
  inner: inner!,
}))

describe('a gallery', () => {
  // HTML, the popover attribute: it opens, and goes by Escape, a key or a press beside it, without script.
  it('shows each picture large when it is pressed, and is valid', async () => {
    expect(large.map(({ id }) => id)).toEqual(['see-ssssssssss-a', 'see-ssssssssss-b', 'see-ssssssssss-c'])
    for (const { id } of large) expect(html).toContain(`<button type="button" class="tr-tile" popovertarget="${id}" aria-label="See Tile `)
    expect(html).not.toContain('<script')
    expect(await problemsOf(html)).toEqual([])
    expect(pageDocumentSchema.parse(document)).toEqual(document)
  })

  it('puts it away by a key of its own', () => {
    for (const { id, inner } of large) expect(inner).toContain(`popovertarget="${id}" popovertargetaction="hide" aria-label="Close"`)
  })

  it('gives each file by the link and the box it has in lines, one without a picture too', () => {
    for (const { inner } of large) expect(inner).toMatch(/<a class="tr-item" href="\/files\/[abc]\.jpg\?open&amp;at=ssssssssss"/)
    expect(html).toContain('href="/files/pictures.zip?save&amp;at=ssssssssss"')
    expect(html.match(/name="pick"/g)).toHaveLength(FILES.length)
    expect(html).toContain('All 4 as one zip')
  })
})
