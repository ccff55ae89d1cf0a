import { describe, expect, it } from 'vitest'
import { contentDisposition } from './disposition'

/** Reads filename* as RFC 8187, section 3.2 says: charset'language'percent-encoded. */
function extended(header: string): string | undefined {
  const match = /filename\*=UTF-8''([A-Za-z0-9!#$&+.^_`|~%-]+)/.exec(header)
  return match ? decodeURIComponent(match[1]!) : undefined
}

describe('contentDisposition (RFC 6266)', () => {
  it('needs no extended form for a plain name', () => {
    expect(contentDisposition('attachment', 'example.html')).toMatch(/^attachment; filename="?example\.html"?$/)
    expect(contentDisposition('inline', 'an example.html')).toBe('inline; filename="an example.html"')
  })

  // The name of the example in RFC 6266, section 5.
  it.each(['€ rates', 'قائمة.pdf', '🏺 Töpferei.pdf', "it's 100% (new).pdf"])('carries %s whole', name => {
    const header = contentDisposition('attachment', name)
    expect(extended(header) ?? /filename="(.*)"/.exec(header)![1]).toBe(name)
  })

  it('gives old readers a readable name and sends nothing but ASCII', () => {
    const header = contentDisposition('attachment', 'Töpferei.pdf')
    expect(header).toMatch(/filename="?Topferei\.pdf"?/)
    expect(header).toMatch(/^[\x20-\x7E]+$/)
  })

  it('escapes quotes and backslashes (RFC 9110, section 5.6.4)', () => {
    expect(contentDisposition('attachment', 'a "b" \\c.pdf')).toContain('filename="a \\"b\\" \\\\c.pdf"')
  })
})
