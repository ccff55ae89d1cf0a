import { create } from 'content-disposition'

/**
 * A Content-Disposition field by RFC 6266, with `filename*` by RFC 8187 where the name is not plain,
 * and a readable ASCII `filename` beside it for old readers.
 */
export function contentDisposition(type: 'inline' | 'attachment', fileName: string): string {
  const plain = fileName
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\x20-\x7E]/g, '_')
  return create(fileName, { type, fallback: plain === fileName ? true : plain })
}
