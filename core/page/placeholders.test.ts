import { describe, expect, it } from 'vitest'
import { ENGLISH, PDF_FACTS, ZIP_FACTS } from '../testing/pages'
import { effectiveAction, fileDestination } from './destination'
import { fillPlaceholders, strayPlaceholders } from './placeholders'
import { slugFromTitle, slugSchema, writtenSlugSchema } from './slug'

describe('fillPlaceholders', () => {
  it.each([
    ['{type}, {size}', 'PDF, 240 kB'],
    ['{pages}', '4 pages'],
    ['{name}', 'list.pdf'],
    ['{date}', '2 Nov 2026'],
    ['{edition}', 'edition 2'],
    ['{downloads}', '1,234 downloads'],
    ['', ''],
    ['plain', 'plain'],
    ['{nonsense}', '{nonsense}'],
    ['{constructor}', '{constructor}'],
    ['{type}, {nonsense}', 'PDF, {nonsense}'],
  ])('%j gives %j', (text, filled) => expect(fillPlaceholders(text, PDF_FACTS, ENGLISH)).toBe(filled))

  it('drops what gives nothing, with its comma', () => {
    expect(fillPlaceholders('{type}, {pages}, {size}', ZIP_FACTS, ENGLISH)).toBe('ZIP, 1.4 MB')
    expect(fillPlaceholders('{pages}, {size}', ZIP_FACTS, ENGLISH)).toBe('1.4 MB')
  })

  it('tells what is none', () => {
    expect(strayPlaceholders('{type} {nonsense}, {Size} {nonsense} {} {constructor}')).toEqual(['{nonsense}', '{Size}', '{constructor}'])
    expect(strayPlaceholders('{type}, {size}')).toEqual([])
  })

  it('counts one', () => expect(fillPlaceholders('{downloads}', ZIP_FACTS, ENGLISH)).toBe('1 download'))

  it('leaves them as they are without a file', () => expect(fillPlaceholders('{type}, {size}', undefined, ENGLISH)).toBe('{type}, {size}'))
})

it('effectiveAction saves what cannot be shown', () => {
  expect(effectiveAction('tab', fileDestination(ZIP_FACTS))).toBe('save')
  expect(effectiveAction('tab', fileDestination(PDF_FACTS))).toBe('tab')
})

describe('slugs', () => {
  it.each([
    ['Clay & glaze', 'clay-and-glaze'],
    ['Über uns', 'uber-uns'],
    ['Files', 'our-files'],
    ['desk', 'our-desk'],
    ['🏺', 'page'],
  ])('%s becomes %s', (title, slug) => {
    expect(slugFromTitle(title)).toBe(slug)
    expect(slugSchema.safeParse(slug).success).toBe(true)
  })

  it.each([
    ['Kilns for Schools', 'kilns-for-schools'],
    ['/clay & glaze/', 'clay-and-glaze'],
    ['  Ofen & Öl ', 'ofen-and-ol'],
    ['kilns', 'kilns'],
  ])('as an address, “%s” is written %s', (written, slug) => expect(writtenSlugSchema.parse(written)).toBe(slug))

  it.each(['', '  ', '🏺', 'Files', 'a'.repeat(81), 'a'.repeat(100_000)])('as an address, “%.20s” says what to do', written => {
    expect(writtenSlugSchema.safeParse(written).error!.issues[0]!.message).toMatch(/such as|80 characters/)
  })

  it.each(['desk', 'api', 'files', 'to', 'a/b', '../x', 'A', 'a b', '-a', '_nuxt', 'a'.repeat(81)])('refuses %s', slug =>
    expect(slugSchema.safeParse(slug).success).toBe(false),
  )
})
