import { typeTag } from '../../files/mediaType'
import { at, type Check } from '../check'
import type { Found } from '../finding'

/** Words that name a type of file, and the tags they are true of. */
const TYPE_WORDS: Record<string, readonly string[]> = {
  pdf: ['PDF'],
  zip: ['ZIP'],
  docx: ['DOCX'],
  xlsx: ['XLSX'],
  pptx: ['PPTX'],
  odt: ['ODT'],
  ods: ['ODS'],
  csv: ['CSV'],
  epub: ['EPUB'],
  png: ['PNG'],
  jpg: ['JPEG'],
  jpeg: ['JPEG'],
  svg: ['SVG'],
  mp3: ['MP3'],
  mp4: ['MP4', 'M4A'],
  wav: ['WAV'],
}
const TYPE_WORD = new RegExp(`(?<![\\p{L}\\d.])(?:${Object.keys(TYPE_WORDS).join('|')})(?![\\p{L}\\d])`, 'iu')

/** The first word of a text that names another type than a file has. */
function wrongWord(text: string, tag: string): string | undefined {
  const [word] = TYPE_WORD.exec(text) ?? []
  return word !== undefined && !TYPE_WORDS[word.toLowerCase()]!.includes(tag) ? word : undefined
}

/** Words that promise one type of file where another one comes. */
export const typeNamed: Check = {
  name: 'type-named',
  cost: 'misled',
  title: 'Promises another type of file',
  why: 'Visitors choose by type: on a phone, a zip they took for a PDF is of no use to them.',
  look: (_, seen) =>
    seen.flatMap((one): Found[] => {
      const { file, placement, written } = one
      if (!file) return []
      const tag = typeTag(file.mediaType)
      return (['label', 'note'] as const).flatMap(part => {
        const word = wrongWord(written[part], tag)
        if (word === undefined) return []
        const mended = written[part].replace(word, part === 'note' ? '{type}' : tag)
        return [
          at(one, {
            words: `It says ${word}, and the file is ${tag}.`,
            detail: `${part} ${word} ${tag}`,
            act: `Say ${tag}`,
            mend: part === 'note' ? { kind: 'note', placement, note: mended } : { kind: 'words', placement, words: mended },
          }),
        ]
      })
    }),
}
