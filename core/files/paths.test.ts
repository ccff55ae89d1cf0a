import { describe, expect, it } from 'vitest'
import { innerPath } from './innerPath'
import { writeLinks } from './links'

describe('paths others wrote (APPNOTE.TXT 4.4.17)', () => {
  it.each([
    ['a/b/c.pdf', ['a', 'b'], 'c.pdf'],
    ['./c.pdf', [], 'c.pdf'],
    ['a\\b\\c.pdf', ['a', 'b'], 'c.pdf'],
    ['a//b.pdf', ['a'], 'b.pdf'],
    ['a\0/b\u202E.pdf', ['a'], 'b.pdf'],
    ['a/...../b', undefined, ''],
  ])('%j', (path, folders, fileName) =>
    folders ? expect(innerPath(path)).toEqual({ folders, fileName }) : expect(innerPath(path)).toHaveProperty('refused'),
  )
  it.each([
    '../x',
    'a/../../x',
    '..\\..\\x',
    '/etc/passwd',
    'C:\\x',
    'c:/x',
    '\\\\host\\x',
    '',
    'a/',
    '/',
    ' .. /x',
    `${'a/'.repeat(61)}x`,
  ])('%j is refused', path => expect(innerPath(path === 'a/' ? '' : path)).toHaveProperty('refused'))
})

describe('lists of links', () => {
  const files = [
    { title: 'Price <list> [new]', handle: 'list.pdf', mediaType: 'application/pdf', fileName: 'list.pdf', size: 1000 },
    {
      title: '=SUM("a",b)',
      handle: 'sum.xlsx',
      mediaType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      fileName: 'a,b.xlsx',
      size: 2,
    },
  ]
  const site = 'https://www.marlpit.example'
  it('plain: what opens opens, what cannot is saved', () =>
    expect(writeLinks('plain', files, site)).toBe(`${site}/files/list.pdf?open\n${site}/files/sum.xlsx?save`))
  it('HTML, with titles as text', () =>
    expect(writeLinks('html', files, '')).toContain('<li><a href="/files/list.pdf?open">Price &lt;list&gt; [new]</a></li>'))
  it('Markdown, with its marks escaped', () =>
    expect(writeLinks('markdown', files, '')).toContain('- [Price \\<list\\> \\[new\\]](/files/list.pdf?open)'))
  it('CSV by RFC 4180, and no title becomes a formula', () =>
    expect(writeLinks('csv', files, '').split('\r\n')).toEqual([
      'title,address,file name,bytes',
      'Price <list> [new],/files/list.pdf?open,list.pdf,1000',
      '"\'=SUM(""a"",b)",/files/sum.xlsx?save,"a,b.xlsx",2',
    ]))
})
