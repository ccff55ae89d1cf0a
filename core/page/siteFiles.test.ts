import { SaxesParser } from 'saxes'
import { describe, expect, it } from 'vitest'
import { robotsTxt, securityTxt, sitemapXml } from './siteFiles'

/** Whether a robot may read a path: patterns match from the start, "$" ends one (RFC 9309, section 2.2.3). */
function mayRead(text: string, path: string): boolean {
  const rules = [...text.matchAll(/^Disallow: (.*)$/gm)].map(([, rule]) => rule!)
  return !rules.some(rule => (rule.endsWith('$') ? path === rule.slice(0, -1) : path.startsWith(rule)))
}

describe('robots.txt', () => {
  it.each([
    ['/desk', false],
    ['/desk/pages', false],
    ['/api/files', false],
    ['/shelves/find?q=kiln', false],
    ['/see/manual.pdf', true],
    ['/desktop-kilns', true],
    ['/apiary', true],
    ['/', true],
  ])('%s may be read: %s', (path, may) => expect(mayRead(robotsTxt('https://marlpit.example'), path)).toBe(may))
  it('says where the sitemap is', () =>
    expect(robotsTxt('https://marlpit.example')).toContain('\nSitemap: https://marlpit.example/sitemap.xml\n'))
})

it('the sitemap is XML that names every page and its day', () => {
  const seen: string[] = []
  const parser = new SaxesParser()
  parser.on('text', text => text.trim() && seen.push(text))
  parser
    .write(
      sitemapXml('https://marlpit.example', [
        { slug: '', published: new Date('2026-11-27T23:00:00Z') },
        { slug: 'clay-and-glaze', published: new Date('2026-01-02') },
      ]),
    )
    .close()
  expect(seen).toEqual(['https://marlpit.example/', '2026-11-27', 'https://marlpit.example/clay-and-glaze', '2026-01-02'])
})

// RFC 9116, sections 2.5.3 and 2.5.5: Contact and Expires are required; Expires is a date of RFC 3339, at most a year away.
it('security.txt has what it must have', () => {
  const now = new Date('2026-11-27T12:00:00Z')
  const text = securityTxt('owner@marlpit.example', 'https://marlpit.example', now)!
  expect(text).toMatch(/^Contact: mailto:owner@marlpit\.example$/m)
  const expires = new Date(/^Expires: (\S+)$/m.exec(text)![1]!)
  expect(expires.getTime() - now.getTime()).toBeGreaterThan(360 * 86_400_000)
  expect(expires.getTime() - now.getTime()).toBeLessThan(365 * 86_400_000)
  expect(securityTxt(undefined, 'https://marlpit.example', now)).toBeUndefined()
})
