import { describe, expect, it } from 'vitest'
import { LANGUAGE_CODES } from '../language/languages'
import { NEW_SITE, PDF_FACTS, knowing } from '../testing/pages'
import { problemsOf } from '../testing/html'
import { renderPage } from '../page/document'
import { pageDocumentSchema } from '../page/schema'
import { fileIds, referencesIn } from '../page/targets'
import { firstFactsSchema, type FirstFacts } from './firstFacts'
import { firstHeadings, firstPages } from './firstPages'

const FACTS: FirstFacts = {
  name: 'Marlpit <Pottery>',
  about: 'Clay and kilns.\nSince 1958.',
  hours: 'Monday to Friday, 8 to 5\n\n  Saturday, 9 to 12',
  phone: '01632 960146',
  email: 'yard@marlpit.example',
  language: 'en',
  file: 'pdf',
}
const BARE: FirstFacts = { ...FACTS, about: '', hours: '', phone: '', email: '', file: null }
const known = knowing(PDF_FACTS)
const live = (facts: FirstFacts) => {
  const { home, foot } = firstPages(facts, 'Price list')
  return renderPage({ ...NEW_SITE, edges: { foot } }, { slug: '', title: home.title, description: '', document: home.document }, known)
}

describe('the first pages', () => {
  it('carry the first file, the hours line by line, and who to ask, on each page below, too', async () => {
    const html = live(FACTS)
    expect(html).toContain('<h1>Marlpit &lt;Pottery&gt;</h1>')
    expect(html).toMatch(/href="\/files\/list\.pdf\?open&amp;at=[a-z0-9]+"/)
    expect(html.match(/<p>Monday to Friday, 8 to 5<br>Saturday, 9 to 12<\/p>/g)).toHaveLength(2)
    expect(html).toContain('href="tel:01632960146"')
    expect(html).toContain('href="mailto:yard@marlpit.example"')
    expect(await problemsOf(html)).toEqual([])
    expect(fileIds(referencesIn(firstPages(FACTS, 'x').downloads.document))).toEqual(['pdf'])
  })

  it('leave out what was not said, heading and all, and ask for it where only the owner sees it', async () => {
    const html = live(BARE)
    expect(html).not.toMatch(/Opening hours|Contact|two sentences/)
    expect(JSON.stringify(firstPages(BARE, '').home.document)).toContain('two sentences')
    expect(await problemsOf(html)).toEqual([])
  })

  it('are documents as any, each of their places with an identity of its own', () => {
    const { home, downloads, foot } = firstPages(FACTS, 'Price list')
    for (const document of [home.document, downloads.document, foot]) expect(pageDocumentSchema.parse(document)).toEqual(document)
    const ids = JSON.stringify([home, downloads, foot]).match(/"placement":"[a-z0-9]+"/g)!
    expect(new Set(ids).size).toBe(ids.length)
  })

  it('have headings in each language a site may have, fit for an address', () => {
    for (const language of LANGUAGE_CODES)
      expect(
        Object.values(firstHeadings(language)).every(words => /\p{L}{4}/u.test(words)),
        language,
      ).toBe(true)
  })

  it('are not made of a phone number or an e-mail that are none', () => {
    expect(firstFactsSchema.safeParse(FACTS).success).toBe(true)
    expect(firstFactsSchema.safeParse(BARE).success).toBe(true)
    for (const wrong of [{ phone: 'call us' }, { email: 'yard' }, { name: '  ' }, { language: 'xx' }])
      expect(firstFactsSchema.safeParse({ ...FACTS, ...wrong }).success).toBe(false)
  })
})
