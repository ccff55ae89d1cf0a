import { describe, expect, it } from 'vitest'
import { firstFree, handleFromFileName, handleSchema, writtenHandleSchema } from './handle'

describe('handleFromFileName', () => {
  it.each([
    ['Price List (new).PDF', 'price-list-new.pdf'],
    ['Prüfbericht Straße.pdf', 'prufbericht-strasse.pdf'],
    ["Owner's manual.pdf", 'owners-manual.pdf'],
    ['🏺.pdf', 'file.pdf'],
    ['قائمة.pdf', 'قائمة.pdf'],
    ['Прайс-лист 2026.pdf', 'прайс-лист-2026.pdf'],
    ['価格表.pdf', '価格表.pdf'],
    ['Ценa für März.pdf', 'ценa-fur-marz.pdf'],
    ['मूल्य सूची.pdf', 'मूल्य-सूची.pdf'],
    ['Τιμές.PDF', 'τιμές.pdf'],
    ['backup.tar.gz', 'backup-tar.gz'],
    ['no extension', 'no-extension'],
    [`${'x'.repeat(300)}.pdf`, `${'x'.repeat(76)}.pdf`],
  ])('%j asks for %j', (name, handle) => {
    expect(handleFromFileName(name)).toBe(handle)
    expect(handleSchema.safeParse(handle).success).toBe(true)
  })
})

describe('firstFree', () => {
  it('numbers before the extension', () => {
    const taken = new Set(['list.pdf', 'list-2.pdf'])
    expect(firstFree('list.pdf', name => taken.has(name))).toBe('list-3.pdf')
    expect(firstFree('other.pdf', name => taken.has(name))).toBe('other.pdf')
  })

  it('stays within the length of a handle', () => {
    const long = `${'x'.repeat(76)}.pdf`
    const free = firstFree(long, name => name === long)
    expect(free).toMatch(/-2\.pdf$/)
    expect(handleSchema.safeParse(free).success).toBe(true)
  })
})

describe('handleSchema', () => {
  it.each(['', '-a', 'a-', 'a--b', 'A', 'a/b', '../x', 'a b', '.pdf', 'ä.pdf', 'Ж', 'а б', 'а/б', 'x'.repeat(81)])('refuses %j', handle => {
    expect(handleSchema.safeParse(handle).success).toBe(false)
  })
})

describe('an address of a file as people write it', () => {
  it.each([
    ['Price List (new).PDF', 'price-list-new.pdf'],
    ['price-list.pdf', 'price-list.pdf'],
    ['price.list.v2.pdf', 'price.list.v2.pdf'],
    ['прайс-лист 2026.pdf', 'прайс-лист-2026.pdf'],
  ])('“%s” is written %s', (written, handle) => expect(writtenHandleSchema.parse(written)).toBe(handle))

  it.each(['', ' ', '🏺', '///'])('“%s” says what to do', written => {
    expect(writtenHandleSchema.safeParse(written).error!.issues[0]!.message).toContain('such as price-list.pdf')
  })
})
