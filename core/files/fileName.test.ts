import { describe, expect, it } from 'vitest'
import { cleanFileName, nameToSave, splitExtension, titleFromFileName } from './fileName'

const bytes = (text: string) => new TextEncoder().encode(text).length

describe('cleanFileName', () => {
  it.each([
    ['price list.pdf', 'price list.pdf'],
    ['../../etc/passwd', 'passwd'],
    ['C:\\Users\\me\\list.pdf', 'list.pdf'],
    ['a\0b.pdf', 'ab.pdf'],
    ['...', 'file'],
    ['..', 'file'],
    ['', 'file'],
    ['folder/..', 'folder'],
    ['.hidden.pdf', 'hidden.pdf'],
    ['trailing. . ', 'trailing'],
    ['what?.pdf', 'what_.pdf'],
    // A right-to-left override would show "annexe‮fdp.exe" as "annexeexe.pdf".
    ['annex\u202Efdp.exe', 'annexfdp.exe'],
    ['\uD800broken.pdf', '\uFFFDbroken.pdf'],
  ])('%j becomes %j', (raw, clean) => expect(cleanFileName(raw)).toBe(clean))

  it('keeps names in every script and emoji', () => {
    expect(cleanFileName('قائمة الأسعار.pdf')).toBe('قائمة الأسعار.pdf')
    expect(cleanFileName('🏺 Töpferei.pdf')).toBe('🏺 Töpferei.pdf')
  })

  it('cuts to 255 bytes (POSIX NAME_MAX) without splitting a character or losing the extension', () => {
    const cut = cleanFileName(`${'ä'.repeat(300)}.pdf`)
    expect(bytes(cut)).toBeLessThanOrEqual(255)
    expect(cut).toMatch(/^ä+\.pdf$/)
  })
})

describe('splitExtension', () => {
  it.each([
    ['a.tar.gz', 'a.tar', '.gz'],
    ['.profile', '.profile', ''],
    ['v1.2 of the list', 'v1.2 of the list', ''],
    ['none', 'none', ''],
  ])('%s', (name, stem, extension) => expect(splitExtension(name)).toEqual([stem, extension]))
})

describe('nameToSave', () => {
  it.each([
    ['list.pdf', undefined, 'list.pdf'],
    ['list.pdf', '  ', 'list.pdf'],
    ['list.pdf', 'For you', 'For you.pdf'],
    ['list.pdf', 'evil.exe', 'evil.exe.pdf'],
    ['list.pdf', '../Mine.PDF', 'Mine.PDF'],
    ['README', 'For you.txt', 'For you.txt'],
  ])('%s, saved as %s: %s', (fileName, chosen, saved) => expect(nameToSave(fileName, chosen)).toBe(saved))

  it('has room for the ending in its 255 bytes', () => {
    const saved = nameToSave('list.pdf', 'ä'.repeat(200))
    expect(bytes(saved)).toBeLessThanOrEqual(255)
    expect(saved).toMatch(/^ä+\.pdf$/)
  })
})

describe('titleFromFileName', () => {
  it('reads separators as spaces but keeps dates whole', () => {
    expect(titleFromFileName('price-list-2026-11.pdf')).toBe('Price list 2026-11')
    expect(titleFromFileName('sds_tin_white.pdf')).toBe('Sds tin white')
  })
})
