import type { FileItem } from '../files/fileItem'

let last = 0

/** A file for tests, with what matters given. */
export function fileItem(given: Partial<FileItem> = {}): FileItem {
  const number = ++last
  return {
    id: `file${number}`,
    title: `File ${number}`,
    handle: `file-${number}.pdf`,
    folder: null,
    edition: 1,
    fileName: `file-${number}.pdf`,
    mediaType: 'application/pdf',
    tag: 'PDF',
    family: 'document',
    size: 1000,
    bundle: false,
    sha256: String(number).padStart(64, '0'),
    crc32: '00000000',
    facts: {},
    preview: 'ready',
    pictureExtent: null,
    reading: 'done',
    readingError: null,
    description: '',
    tags: [],
    picture: null,
    see: null,
    gate: null,
    gates: [],
    position: 0,
    created: '2026-11-01T10:00:00.000Z',
    changed: '2026-11-01T10:00:00.000Z',
    deleted: null,
    remarks: [],
    uses: 0,
    downloads: 0,
    waits: false,
    withdrawn: false,
    ...given,
  }
}
