import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { extname, join } from 'node:path'
import { familyOf, typeTag } from '../core/files/mediaType'
import { contentsKind, viewOf } from '../core/files/fileContents'
import { drawnByOffice, hasStills } from '../core/files/programs'
import { wordsOf } from '../core/find/fold'
import { ownerApi } from '../e2e/support/owner'
import { startServer } from '../e2e/support/server'
import { cookieOf, upload } from '../e2e/support/upload'
import { sniffType } from '../server/services/library/sniff'
import { findPrograms } from '../server/services/reading/programs'
import { read, type ReadPart } from '../server/workers/read'
import { buildDemo } from '../demo/build'
import { WORD, bytesOf, makeFormatSet } from './formatSet'
import { p95 } from './measure'
import { report, sayEnd } from './report'

const FILES = 96
const folder = await mkdtemp(join(tmpdir(), 'trough-formats-'))
const names = await makeFormatSet(folder)
const programs = await findPrograms(process.env.PATH!.split(':'))
const [wanted] = wordsOf(WORD)

/** What reads and shows a kind of file. */
function byOf(mediaType: string): string {
  if (mediaType === 'application/pdf') return 'PDFium'
  if (mediaType === 'application/msword') return 'word-extractor'
  if (mediaType === 'application/vnd.ms-excel') return 'SheetJS'
  if (mediaType === 'application/vnd.ms-powerpoint') return 'cfb, own reader of records'
  if (/rtf/.test(mediaType)) return 'rtf-stream-parser'
  if (/epub|opendocument|openxml/.test(mediaType)) return `yauzl, saxes${/wordprocessing/.test(mediaType) ? ', mammoth' : ''}`
  if (/hei[cf]/.test(mediaType)) return 'libheif'
  if (mediaType === 'image/bmp') return 'bmp-ts, sharp'
  const family = familyOf(mediaType)
  if (family === 'picture') return 'sharp'
  if (family === 'sound' || family === 'film') return 'music-metadata'
  if (contentsKind(mediaType) === 'entries') return /zip$/.test(mediaType) && !/gzip/.test(mediaType) ? 'yauzl' : '7-Zip, tar-stream'
  if (/csv|tab-separated/.test(mediaType)) return 'papaparse'
  if (/markdown/.test(mediaType)) return 'markdown-it'
  return /html/.test(mediaType) ? 'htmlparser2' : 'chardet, TextDecoder'
}

const VIEWS = { pages: 'its pages', picture: 'large', sound: 'player', film: 'player', contents: '', none: '–' }
const CONTENTS = {
  markdown: 'as text with headings',
  document: 'as text with headings',
  sheets: 'tables',
  entries: 'list of files',
  text: 'as text',
}

async function readOne(name: string, mediaType: string, more: typeof programs) {
  const parts: ReadPart[] = []
  const paths = { path: join(folder, name), picture: join(folder, 'out', `${name}.webp`), pages: join(folder, 'out', `${name}.pdf`) }
  const result = await read({ ...paths, mediaType, programs: more }, async found => void parts.push(...found))
  return { ...result, found: parts.some(({ words }) => words.includes(wanted!)) }
}

const rows: string[] = []
for (const name of names) {
  const { mediaType, charset } = await sniffType(join(folder, name), name)
  const alone = await readOne(name, mediaType, {})
  const view = viewOf({ mediaType, facts: alone.facts })
  const kind = contentsKind(mediaType)
  const seen = view === 'contents' ? CONTENTS[kind!] : view === 'none' && alone.found ? 'its words' : VIEWS[view]
  const office = drawnByOffice(mediaType)
  const withThem =
    (office && programs.office) || (hasStills(mediaType) && programs.film) ? await readOne(name, mediaType, programs) : undefined
  const more =
    !office && !hasStills(mediaType)
      ? ''
      : withThem?.facts.drawn
        ? 'its pages'
        : withThem?.picture
          ? office
            ? 'first page'
            : 'a still'
          : '–'
  const words = alone.found ? 'yes' : ['picture', 'sound', 'film'].includes(familyOf(mediaType)) ? '' : '–'
  if (alone.trouble) console.log(`${name}: ${alone.trouble}`)
  rows.push(
    `| ${extname(name).slice(1).toUpperCase()}${charset ? ` in ${charset}` : ''} | ${typeTag(mediaType)} | \`${mediaType}\` | ${seen} | ${words} | ${alone.picture ? 'yes' : ''} | ${more} | ${byOf(mediaType)} |`,
  )
}
await writeFile(
  new URL('../docs/formats.md', import.meta.url),
  `# What is understood of each kind of file

Made by \`npm run bench formats\` out of files that other programs wrote; with ${[programs.office && 'LibreOffice', programs.film && 'ffmpeg'].filter(Boolean).join(' and ') || 'no further program'} on the machine where that is said. Each holds the word “${WORD}”, as far as it can hold words.

- **Seen**: what the desk shows of it, and what visitors see at its look.
- **Found**: whether the word in it is found.
- **Drawn**: whether it has a small picture by itself; **with programs**: what LibreOffice or ffmpeg add ([Setup, Files](../README.md)).

| File | Tag | Recognised as | Seen | Found | Drawn | With programs | By |
|---|---|---|---|---|---|---|---|
${rows.join('\n')}

Every other kind is kept, given out and counted all the same: it is shown by its facts alone.
`,
)
console.log(`${rows.length} kinds: docs/formats.md`)

// How long reading takes, and what visitors feel of it.
const data = await mkdtemp(join(tmpdir(), 'trough-formats-data-'))
await buildDemo(data)
const server = await startServer(data)
try {
  const [cookie, api] = [await cookieOf(server.url), await ownerApi(server.url)]
  const waiting = async () => (await api<{ waiting: number }>('/reading')).waiting
  while (await waiting()) await new Promise(resolve => setTimeout(resolve, 100))
  const ask = async () => {
    const start = performance.now()
    await (await fetch(`${server.url}/guides`)).arrayBuffer()
    return performance.now() - start
  }
  const p99 = (times: number[]) => times.toSorted((a, b) => a - b)[Math.floor(times.length * 0.99)]!
  const quiet: number[] = []
  for (let round = 0; round < 1500; round++) quiet.push(await ask())
  for (let index = 0; index < FILES; index++) {
    const name = names[index % names.length]!
    // Bytes that are there already are not read again.
    const bytes = await bytesOf(folder, name)
    await upload(server.url, `${index}-${name}`, index < names.length ? bytes : Buffer.concat([bytes, Buffer.from('\n')]), cookie)
  }
  while (await waiting()) await new Promise(resolve => setTimeout(resolve, 100))
  // They were read as they came in; now all of them with visitors there from the first on.
  const { items } = await api<{ items: { id: string }[] }>(`/files?sort=-added&limit=${FILES}`)
  const start = performance.now()
  await api('/reading/again', { method: 'POST', json: { files: items.map(({ id }) => id) } })
  const during: number[] = []
  let done = false
  const watching = (async () => {
    while (await waiting()) await new Promise(resolve => setTimeout(resolve, 300))
    done = true
  })()
  while (!done) during.push(await ask())
  await watching
  console.log(`\nReading ${FILES} files without programs, while a visitor asks for a page again and again`)
  report('seconds', (performance.now() - start) / 1000, 's', { most: 60 })
  report('a page, p99, idle', p99(quiet), 'ms')
  report('a page, p95, while they are read', p95(during), 'ms')
  report('a page, p99, while they are read, to idle', p99(during) / p99(quiet), 'times', { most: 2 })
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
process.exit(sayEnd())
