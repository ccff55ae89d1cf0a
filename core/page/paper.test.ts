import jsQR from 'jsqr'
import sharp from 'sharp'
import { expect, it } from 'vitest'
import { DEFAULT_STYLE, type Paper } from '../look/siteStyle'
import { problemsOf } from '../testing/html'
import { NEW_SITE, knowing, linkMark, pageOf, PDF_FACTS, words } from '../testing/pages'
import { renderPage } from './document'
import { codeHtml } from './paperCode'

const printed = (paper: Paper, address = 'https://marlpit.example') =>
  renderPage(
    { ...NEW_SITE, address, style: { ...DEFAULT_STYLE, paper }, codeOf: paper.code ? codeHtml : undefined },
    { slug: 'kilns', title: 'Kilns', description: '', document: pageOf(words('The list', linkMark('aaaaaaaaaa', 'pdf'))) },
    knowing(PDF_FACTS),
  )

it('a printed page ends with a code that a phone reads its address from', async () => {
  const html = printed({ addresses: 'outside', code: true })
  expect(await problemsOf(html)).toEqual([])
  const svg = /<svg viewBox[^]*?<\/svg>/.exec(html)![0].replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"')
  const { data, info } = await sharp(Buffer.from(svg), { density: 300 })
    .flatten({ background: '#fff' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  // Another's reader of QR codes (ISO/IEC 18004).
  expect(jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data).toBe('https://marlpit.example/kilns')
  expect(html).toContain('.tr-code{display:none}')
  // Until the site has an address there is nothing to read.
  expect(printed({ addresses: 'outside', code: true }, '')).not.toContain('<svg viewBox')
})

it('a printed page tells where its links lead, as far as its owner wants it to', () => {
  const rules = (addresses: Paper['addresses']) => printed({ addresses, code: false })
  expect(rules('outside')).toMatch(/a\[href\^=http\]::after/)
  expect(rules('outside')).not.toContain('(https://marlpit.example"')
  // As one would type it: without what the site alone needs in it.
  expect(rules('all')).toMatch(/data-paper="\/files\/list\.pdf" href="\/files\/list\.pdf\?/)
  expect(rules('all')).toContain('content:" (https://marlpit.example" attr(data-paper) ")"')
  expect(rules('none')).not.toContain('attr(href)')
})
