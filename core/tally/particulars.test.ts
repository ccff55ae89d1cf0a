import { describe, expect, it } from 'vitest'
import { asksForPrivacy, campaignOf, languageOf, referredBy } from './particulars'

describe('where a download came from', () => {
  it('is a page of the site itself, or another site with as much of its path as was sent', () => {
    expect(referredBy('https://marlpit.example/trade?x=1', ['marlpit.example'])).toEqual({ path: '/trade', referrer: '', referrerPath: '' })
    expect(referredBy('https://www.kilnclub.example/links/clay', ['marlpit.example'])).toEqual({
      referrer: 'kilnclub.example',
      referrerPath: '/links/clay',
    })
    // What browsers send to other sites by themselves: the origin alone (Referrer Policy, strict-origin-when-cross-origin).
    expect(referredBy('https://kilnclub.example/', ['marlpit.example'])).toEqual({ referrer: 'kilnclub.example', referrerPath: '' })
  })
  it('is nowhere for what is no address of the web', () => {
    for (const bad of [undefined, '', 'about:blank', 'javascript:alert(1)', 'android-app://x.y', 'http://', 'no address'])
      expect(referredBy(bad, ['marlpit.example'])).toEqual({ referrer: '', referrerPath: '' })
  })
  it('is cut where it is long', () => {
    expect(referredBy(`https://a.example/${'x'.repeat(5000)}`, []).referrerPath).toHaveLength(500)
  })
})

describe('what is said of who took it', () => {
  it('is the first language, without its region (examples of RFC 9110, section 12.5.4)', () => {
    expect(['da, en-gb;q=0.8, en;q=0.7', 'en-US,en;q=0.5', 'de', '*', '', undefined, 'x'.repeat(500)].map(languageOf)).toEqual([
      'da',
      'en',
      'de',
      '',
      '',
      '',
      '',
    ])
  })
  it('is less where somebody asked not to be followed', () => {
    expect(asksForPrivacy({ 'sec-gpc': '1' })).toBe(true)
    expect(asksForPrivacy({ dnt: '1' })).toBe(true)
    expect(asksForPrivacy({ 'dnt': '0', 'sec-gpc': '0' })).toBe(false)
  })
  it('is a campaign where its name could be one', () => {
    expect(campaignOf('Newsletter-2026-11')).toBe('newsletter-2026-11')
    for (const bad of [null, '', '=1+1', '<b>', 'a b', 'x'.repeat(61), "'; drop"]) expect(campaignOf(bad)).toBe('')
  })
})
