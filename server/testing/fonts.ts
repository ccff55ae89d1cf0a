import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import subsetFont from 'subset-font'

const require = createRequire(import.meta.url)

/** A font that comes with the project, as its package has it. */
export const packagedFont = (name: string): Promise<Buffer> =>
  readFile(require.resolve(`@fontsource-variable/${name}/files/${name}-latin-wght-normal.woff2`))

/** The same as TTF, of one weight where one is asked for. */
export const trueType = async (name: string, weight?: number): Promise<Buffer> =>
  subsetFont(await packagedFont(name), undefined, {
    keepAllGlyphs: true,
    targetFormat: 'sfnt',
    ...(weight && { variationAxes: { wght: weight } }),
  })

/** Where a table of a font lies in its bytes (OpenType 1.9, "Table Record"). */
export function tableAt(font: Buffer, tag: string): number {
  for (let record = 12; record < 12 + 16 * font.readUInt16BE(4); record += 16)
    if (font.toString('latin1', record, record + 4) === tag) return font.readUInt32BE(record + 8)
  throw new Error(`no table ${tag}`)
}

/** The same font, whose maker allows something else (OpenType 1.9, OS/2 table, `fsType`). */
export function allowing(font: Buffer, fsType: number): Buffer {
  const changed = Buffer.from(font)
  changed.writeUInt16BE(fsType, tableAt(changed, 'OS/2') + 8)
  return changed
}
