import { describe, expect, it } from 'vitest'
import { DEFAULT_STYLE } from '../look/siteStyle'
import { contrast } from '../look/contrast'
import { mix, tonePalettes } from '../look/palette'
import { sectionContrast } from '../look/sectionContrast'
import { problemsOf } from '../testing/html'
import { NEW_SITE, PDF_FACTS, knowing, pageOf, words } from '../testing/pages'
import { renderPage } from './document'
import { pageDocumentSchema, type Block, type SectionBlock } from './schema'
import { fileIds, giveTarget, mapTargets, placementsOf, referencesIn } from './targets'

const PHOTO = { ...PDF_FACTS, id: 'photo', handle: 'shelves.jpg', picture: { version: 'b', width: 2000, height: 1100 } }
const known = knowing(PHOTO)
const over = (picture: string | null, ...content: SectionBlock['content']): SectionBlock => ({
  type: 'section',
  attrs: { tone: 'deep', padding: 'medium', width: 'text', picture, placement: 'bbbbbbbbbb', veil: 40 },
  content,
})
const html = (...blocks: Block[]) =>
  renderPage(NEW_SITE, { slug: 'x', title: 'Kilns & more', description: '', document: pageOf(...blocks) }, known)

describe('a section over a picture', () => {
  it('has it behind its words, not told to those who do not see it, valid', async () => {
    const page = html(words('First'), over('photo', words('Warm')))
    expect(page).toMatch(
      /<section class="[^"]*tr-pictured[^"]*">\n<div class="tr-behind" style="--veil:40%"><img[^>]* alt=""[^>]*><\/div>\n<p>Warm/,
    )
    expect(page).toContain('/pictures/shelves.jpg?width=1920')
    expect(await problemsOf(page)).toEqual([])
  })

  it('that a page begins with holds the title, and its picture is fetched at once', async () => {
    const page = html(over('photo', words('Warm')), words('Further down'))
    expect(page).toMatch(
      /<main class="tr-page">\n<section[^>]*>\n<div[\s\S]*?<\/div>\n<h1>Kilns &amp; more<\/h1>\n<p>Warm<\/p>\n<\/section>\n<p>Further/,
    )
    expect(page.match(/<h1>/g)).toHaveLength(1)
    expect(/<img[^>]*>/.exec(page)![0]).not.toContain('lazy')
    expect(await problemsOf(page)).toEqual([])
  })

  it('stands on its colour alone where the picture is gone', () => {
    const page = html(over('gone', words('Warm')))
    expect(page).not.toMatch(/<img|class="[^"]*tr-pictured/)
    expect(page).toMatch(/<h1>Kilns &amp; more<\/h1>\n<section/)
  })

  it('leans on the picture as on any file: told, led elsewhere, taken off, given', () => {
    const document = pageOf(over('photo', words('Warm')))
    expect(placementsOf(document)).toMatchObject([{ id: 'bbbbbbbbbb', kind: 'picture', targets: [{ kind: 'file', id: 'photo' }] }])
    expect(fileIds(referencesIn(document))).toEqual(['photo'])
    expect(mapTargets(document, () => ({ kind: 'file', id: 'other' })).content[0]).toMatchObject({ attrs: { picture: 'other' } })
    const without = mapTargets(document, () => 'remove')
    expect(without.content[0]).toMatchObject({ attrs: { picture: null }, content: [words('Warm')] })
    expect(pageDocumentSchema.parse(without)).toEqual(without)
    expect(giveTarget(without, 'bbbbbbbbbb', { kind: 'file', id: 'new' }).content[0]).toMatchObject({ attrs: { picture: 'new' } })
  })
})

describe('words over a picture', () => {
  const palettes = [DEFAULT_STYLE.palette, DEFAULT_STYLE.dark!].map(palette => tonePalettes(palette).deep)
  const samples = ['#FFFFFF', '#000000', '#C8763A']
  const judged = (veil: number, links = false) => sectionContrast({ picture: 'photo', veil, links }, palettes, () => samples)

  // WCAG 2.2, 1.4.3: 4.5 to 1, at the worst spot there is.
  it('are held against every spot of it, on light and dark screens', () => {
    const worst = Math.min(...palettes.flatMap(({ paper, ink }) => samples.map(sample => contrast(ink, mix(paper, sample, 0.3)))))
    expect(judged(30)).toMatchObject({ ratio: worst, passes: false })
  })

  it('pass with the veil that is offered, and not with the next thinner one', () => {
    const { veil } = judged(0)
    expect(judged(veil).passes).toBe(true)
    expect(judged(veil - 5).passes).toBe(false)
    expect(judged(100).passes).toBe(true)
  })

  it('need more veil where some of them lead somewhere in a colour of their own', () => {
    expect(judged(0, true).veil).toBeGreaterThanOrEqual(judged(0).veil)
    expect(judged(judged(0, true).veil, true).passes).toBe(true)
  })
})

describe('a head over the picture that a page begins with', () => {
  const site = { ...NEW_SITE, style: { ...DEFAULT_STYLE, head: 'over' as const } }
  const page = (...blocks: Block[]) => renderPage(site, { slug: 'x', title: 'X', description: '', document: pageOf(...blocks) }, known)

  it('has the colours of the words there, which were held against the picture', async () => {
    const html = page(over('photo', words('Warm')))
    expect(html).toContain('<header class="tr-page tr-over tr-tone-deep">')
    expect(await problemsOf(html)).toEqual([])
  })

  it('stands above as ever where a page begins otherwise', () => {
    for (const blocks of [[words('First'), over('photo', words('Warm'))], [over(null, words('Warm'))]])
      expect(page(...blocks)).toContain('<header class="tr-page">')
  })
})
