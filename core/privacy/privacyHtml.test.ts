import { describe, expect, it } from 'vitest'
import { LANGUAGE_CODES } from '../language/languages'
import { speechOf } from '../language/speech'
import { NEW_SITE, knowing, pageOf } from '../testing/pages'
import { renderPage } from '../page/document'
import { KEEPS_LITTLE, type Kept } from './kept'
import { privacyHtml, privacySentences } from './privacyHtml'

const ALL: Kept = { countries: true, addressDays: 30, gates: true, people: true, letterbox: true, peopleDays: 365 }
const english = speechOf('en')

describe('privacy words', () => {
  it('say nothing of what is not kept', () => {
    const little = privacySentences(KEEPS_LITTLE, english).join(' ')
    expect(little).not.toMatch(/country,|days, and then|cookie remembers|e-mail|hand in|erased when/)
    expect(little).toContain('not written down')
  })

  // General Data Protection Regulation, article 13: what is kept, for how long, and what may be asked.
  it('say each thing that is kept, and for how long', () => {
    const all = privacySentences(ALL, english).join(' ')
    for (const words of [
      'from which country',
      'for 30 days',
      'cookie remembers',
      'e-mail address',
      'hand in',
      'for 365 days',
      'corrected or erased',
    ])
      expect(all).toContain(words)
    expect(all).not.toContain('not written down')
    expect(privacySentences({ ...ALL, peopleDays: null }, english).join(' ')).toContain('until you ask')
    expect(privacySentences({ ...ALL, addressDays: 1, peopleDays: 1 }, english).join(' ')).toContain('for one day, and then')
  })

  it.each(LANGUAGE_CODES)('say as much in %s', language => {
    expect(privacySentences(ALL, speechOf(language))).toHaveLength(privacySentences(ALL, english).length)
    expect(privacySentences(ALL, speechOf(language)).join(' ')).not.toMatch(/\{\w+\}|undefined/)
  })

  it('follow what is kept where they stand on a page', () => {
    const page = {
      slug: 'privacy',
      title: 'Privacy',
      description: '',
      document: pageOf({ type: 'privacy', attrs: { placement: 'privacy1aa' } }),
    }
    const facts = { ...knowing(), kept: ALL }
    expect(renderPage(NEW_SITE, page, facts)).toContain(privacyHtml(ALL, english))
    expect(renderPage(NEW_SITE, page, { ...facts, kept: KEEPS_LITTLE })).toContain(privacyHtml(KEEPS_LITTLE, english))
  })
})
