import { describe, expect, it } from 'vitest'
import { contentTypeHeader, familyOf, isActiveContent, opensInBrowser, typeFromName, typeTag } from './mediaType'
import { remarksOn } from './remarks'

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'

describe('types', () => {
  it.each([
    ['a.pdf', 'application/pdf', 'PDF', 'document'],
    ['a.docx', DOCX, 'DOCX', 'document'],
    ['a.xlsx', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'XLSX', 'sheet'],
    ['a.csv', 'text/csv', 'CSV', 'sheet'],
    ['a.pptx', 'application/vnd.openxmlformats-officedocument.presentationml.presentation', 'PPTX', 'slides'],
    ['a.jpg', 'image/jpeg', 'JPEG', 'picture'],
    ['a.svg', 'image/svg+xml', 'SVG', 'picture'],
    ['a.wav', 'audio/wav', 'WAV', 'sound'],
    ['a.mp4', 'video/mp4', 'MP4', 'film'],
    ['a.zip', 'application/zip', 'ZIP', 'archive'],
    ['a.unheard', 'application/octet-stream', 'FILE', 'other'],
  ])('%s is %s', (name, mediaType, tag, family) => {
    expect(typeFromName(name)).toBe(mediaType)
    expect(typeTag(mediaType)).toBe(tag)
    expect(familyOf(mediaType)).toBe(family)
  })

  it("never opens what could run on the site's origin", () => {
    for (const type of ['text/html', 'image/svg+xml', 'application/xml', 'text/xml', 'application/xhtml+xml', 'text/javascript']) {
      expect(opensInBrowser(type), type).toBe(false)
      expect(isActiveContent(type), type).toBe(true)
    }
    expect(isActiveContent(DOCX)).toBe(false)
    expect(opensInBrowser('application/pdf')).toBe(true)
  })

  it('sends text as UTF-8', () => expect(contentTypeHeader('text/plain')).toBe('text/plain; charset=utf-8'))
})

describe('remarksOn', () => {
  it.each([
    ['list.pdf', 'application/pdf', 10, false],
    ['list.pdf', 'application/pdf', 0, true],
    ['list.pdf', 'text/html', 10, true],
    ['photo.jpg', 'image/png', 10, true],
    ['list.docx', 'application/zip', 10, false],
    ['data.csv', 'text/plain', 10, false],
    ['tone.wav', 'audio/vnd.wave', 10, false],
    ['list.pdf', 'application/octet-stream', 10, true],
    ['thing.unheard', 'application/pdf', 10, false],
  ])('%s holding %s', (fileName, mediaType, size, remarked) => {
    expect(remarksOn({ fileName, mediaType, size }).length > 0).toBe(remarked)
  })
})
