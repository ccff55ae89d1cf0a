import { execFileSync } from 'node:child_process'
import { mkdir, readFile, readdir, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { strToU8, zipSync } from 'fflate'
import sharp from 'sharp'
import { makePdf } from '../demo/pdf'
import { makeTone } from '../demo/pictures'

/** A word that stands in every file that has words. */
export const WORD = 'Celadon'
const TEXT = `${WORD} glaze, Größe zwölf, 釉薬\n`

const FLAT_SLIDES = (body: string) => `<?xml version="1.0" encoding="UTF-8"?>
<office:document xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0"
 xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0"
 office:mimetype="application/vnd.oasis.opendocument.presentation" office:version="1.2"><office:body><office:presentation>
<draw:page draw:name="p1"><draw:frame svg:width="20cm" svg:height="3cm" svg:x="1cm" svg:y="1cm"><draw:text-box><text:p>${body}</text:p></draw:text-box></draw:frame></draw:page>
</office:presentation></office:body></office:document>`

/**
 * Real files of every kind that small businesses have, each written by the program most of them come from: LibreOffice, ffmpeg, 7-Zip,
 * GNU tar, libheif, iconv.
 *
 * @returns their names, in the order of their kinds
 */
export async function makeFormatSet(folder: string): Promise<string[]> {
  const names: string[] = []
  const at = (name: string) => join(folder, name)
  const made = (...added: string[]) => names.push(...added)
  const write = async (name: string, bytes: string | Uint8Array) => {
    await writeFile(at(name), bytes)
    made(name)
  }
  const run = (command: string, ...args: string[]) => execFileSync(command, args, { cwd: folder, stdio: 'pipe' })
  const convert = async (from: string, ...kinds: string[]) => {
    for (const kind of kinds) {
      run('soffice', '--headless', '--convert-to', kind, '--outdir', at('out'), at(from))
      const name = (await readdir(at('out')))[0]!
      await rename(at(join('out', name)), at(name))
      made(name)
    }
  }
  await mkdir(at('out'), { recursive: true })

  // Documents
  await write(
    'sheet.pdf',
    await makePdf({ title: 'Sheet', subtitle: '', sections: [{ heading: WORD, text: [TEXT] }] }, new Date('2026-11-02')),
  )
  await writeFile(at('words.html'), `<meta charset="utf-8"><title>Words</title><h1>${WORD}</h1><p>${TEXT}</p>`)
  await convert('words.html', 'docx:MS Word 2007 XML', 'odt:writer8', 'doc:MS Word 97', 'rtf:Rich Text Format')
  await writeFile(at('slides.fodp'), FLAT_SLIDES(TEXT))
  await convert('slides.fodp', 'pptx', 'odp', 'ppt')
  await writeFile(at('prices.csv'), `Glaze,Cone\n${WORD},9\n`)
  await convert('prices.csv', 'xlsx', 'ods', 'xls')
  const opf = `<package><metadata/><manifest><item id="a" href="a.xhtml"/></manifest><spine><itemref idref="a"/></spine></package>`
  await write(
    'book.epub',
    zipSync({
      'mimetype': [strToU8('application/epub+zip'), { level: 0 }],
      'META-INF/container.xml': strToU8('<container><rootfiles><rootfile full-path="b.opf"/></rootfiles></container>'),
      'b.opf': strToU8(opf),
      'a.xhtml': strToU8(`<html><body><p>${TEXT}</p></body></html>`),
    }),
  )
  // Texts
  made('prices.csv', 'words.html')
  await write('notes.txt', TEXT)
  await write('notes.md', `# Notes\n\n${TEXT}`)
  await write('data.json', JSON.stringify({ glaze: WORD }))
  await write('data.xml', `<?xml version="1.0"?><glaze>${WORD}</glaze>`)
  await write('list.tsv', `Glaze\tCone\n${WORD}\t9\n`)
  await write('mail.eml', `From: a@marlpit.example\nSubject: ${WORD}\n\n${WORD}\n`)
  await write('card.vcf', `BEGIN:VCARD\nVERSION:4.0\nFN:${WORD}\nEND:VCARD\n`)
  await write('dates.ics', `BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:x\nBEGIN:VEVENT\nUID:1\nSUMMARY:${WORD}\nEND:VEVENT\nEND:VCALENDAR\n`)
  for (const [name, encoding, text] of [
    ['utf16.csv', 'UTF-16', `Glaze,Größe\n${WORD},zwölf\n`],
    ['cp1252.csv', 'WINDOWS-1252', `Glaze,Größe\n${WORD},zwölf\n`],
    ['latin1.txt', 'ISO-8859-1', `${WORD}, Größe zwölf\n`.repeat(4)],
    ['sjis.txt', 'SHIFT_JIS', `${WORD} 釉薬は窯の中で溶けて色になる。\n`.repeat(4)],
    ['gb18030.txt', 'GB18030', `${WORD} 陶瓷釉料在窑中熔化变色。\n`.repeat(4)],
  ] as const)
    await write(name, execFileSync('iconv', ['-f', 'UTF-8', '-t', encoding], { input: text }))

  // Pictures
  const picture = sharp({ create: { width: 300, height: 200, channels: 3, background: '#2a7f9e' } })
  for (const kind of ['png', 'jpeg', 'webp', 'gif', 'tiff', 'avif'] as const)
    await write(`tile.${kind === 'jpeg' ? 'jpg' : kind}`, await picture.clone().toFormat(kind).toBuffer())
  await write(
    'mark.svg',
    '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="60"><rect width="80" height="60" fill="#2a7f9e"/></svg>',
  )
  run('heif-enc', 'tile.png', '-o', 'tile.heic')
  run('ffmpeg', '-v', 'error', '-y', '-i', 'tile.png', 'tile.bmp')
  made('tile.heic', 'tile.bmp')

  // Sound and film
  await write('tone.wav', makeTone())
  for (const name of ['tone.mp3', 'tone.flac', 'tone.ogg', 'tone.opus', 'tone.m4a', 'tone.aiff', 'tone.wma']) {
    run('ffmpeg', '-v', 'error', '-y', '-i', 'tone.wav', name)
    made(name)
  }
  for (const name of ['film.mp4', 'film.webm', 'film.mov', 'film.mkv', 'film.avi', 'film.wmv']) {
    run('ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=duration=3:size=320x180:rate=10', name)
    made(name)
  }

  // Archives
  await write('pack.zip', zipSync({ [`${WORD}.txt`]: strToU8(TEXT) }))
  await writeFile(at(`${WORD}.txt`), TEXT)
  run('tar', 'cf', 'pack.tar', `${WORD}.txt`)
  run('tar', 'czf', 'pack.tgz', `${WORD}.txt`)
  run('7z', 'a', '-bd', 'pack.7z', `${WORD}.txt`)
  for (const [command, ending] of [
    ['gzip', 'gz'],
    ['bzip2', 'bz2'],
    ['xz', 'xz'],
  ] as const) {
    run(command, '-kf', `${WORD}.txt`)
    made(`${WORD}.txt.${ending}`)
  }
  made('pack.tar', 'pack.tgz', 'pack.7z')
  return names
}

export const bytesOf = (folder: string, name: string): Promise<Buffer> => readFile(join(folder, name))
