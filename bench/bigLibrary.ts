import { createHash } from 'node:crypto'
import { mkdir } from 'node:fs/promises'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { wordsOf } from '../core/find/fold'
import { typeFromName } from '../core/files/mediaType'
import { OWNER } from '../demo/owner'
import { seeded } from '../demo/random'
import { openDatabase } from '../server/db/connection'
import { openTrough } from '../server/trough'

export const FILES = 50_000
export const FOLDERS = 500

const NOUNS = [
  'glaze',
  'clay',
  'kiln',
  'firing',
  'tile',
  'mould',
  'slip',
  'cone',
  'shelf',
  'element',
  'wheel',
  'brush',
  'studio',
  'class',
  'order',
  'invoice',
  'price',
  'stock',
  'delivery',
  'safety',
]
const ADJECTIVES = [
  'winter',
  'summer',
  'red',
  'white',
  'smooth',
  'coarse',
  'matt',
  'bright',
  'spare',
  'annual',
  'weekly',
  'old',
  'trade',
  'small',
  'large',
]
const KINDS = ['list', 'chart', 'manual', 'sheet', 'plan', 'notes', 'guide', 'form', 'report', 'letter']
const ENDINGS = ['pdf', 'pdf', 'pdf', 'docx', 'xlsx', 'png', 'jpg', 'csv', 'txt', 'zip']
const SYLLABLES = ['ka', 'lo', 'mi', 'ter', 'san', 'pre', 'do', 'vul', 'ni', 'gar', 'te', 'sho', 'ber', 'ul', 'fin', 'ra']
/** Thousands of made-up words, of which a few are in most documents and most in a few (Zipf's law). */
const WORDS = Array.from({ length: 4096 }, (_, index) => [index >> 8, (index >> 4) & 15, index & 15].map(part => SYLLABLES[part]).join(''))
const TAGS = ['safety', 'archive', 'trade', 'teaching', 'supplier']
const BATCH = 1000

/** Words that stand in one document each, and so can be looked for. */
/** A word that stands in about one document in `WORDS.length / rank`. */
export const wordOfRank = (rank: number) => WORDS[rank]!
export const rareWord = (index: number) => `zq${index.toString(36)}x`

/**
 * Fills a data folder with a library of very many files, 50,000 in 500 folders where nothing else is said, each file with a page of words;
 * written straight into the tables, since sending them would take an hour.
 */
export async function makeBigLibrary(data: string, count = FILES, folders = FOLDERS): Promise<void> {
  const trough = await openTrough({ data })
  await trough.account.create(OWNER.email, OWNER.password)
  await trough.site.set({ name: 'A large library', address: '' })
  await trough.close()

  const { db, close } = await openDatabase(join(data, 'db'))
  const random = seeded(3)
  const pick = <T>(from: T[]) => from[Math.floor(random() * from.length)]!
  const zipf = () => WORDS[Math.floor(WORDS.length ** random()) - 1]!
  const folderOf = (index: number) => `folder${index}`
  await db.execute(
    sql`insert into folders (id, parent, name) select 'folder' || n, case when n < 20 then null else 'folder' || (n / 20) end, 'Folder ' || n from generate_series(1, ${folders}) as n`,
  )

  for (let start = 0; start < count; start += BATCH) {
    const rows = Array.from({ length: BATCH }, (_, offset) => {
      const index = start + offset
      const words = [pick(ADJECTIVES), pick(NOUNS), pick(KINDS), String(index)]
      const name = `${words.join('-')}.${pick(ENDINGS)}`
      const body = `${Array.from({ length: 200 }, zipf).join(' ')} ${rareWord(index)}`
      return {
        id: `f${String(index).padStart(11, '0')}`,
        sha256: createHash('sha256').update(`bench ${index}`).digest('hex'),
        title: words.join(' '),
        name,
        mediaType: typeFromName(name),
        body,
        words: `{${[...new Set(wordsOf(body))].join(',')}}`,
        size: Math.floor(1000 + random() ** 3 * 9_000_000),
        folder: folderOf(1 + Math.floor(random() * folders)),
        days: Math.floor(random() * 2000),
        tags: random() < 0.3 ? `{${pick(TAGS)}}` : '{}',
      }
    })
    const column = (name: keyof (typeof rows)[number]) => sql.param(rows.map(row => row[name]))
    await db.execute(sql`insert into blobs (sha256, size, crc32, preview, reading, facts) select sha256, size, 0, 'none', 'done', '{}'::jsonb
      from unnest(${column('sha256')}::text[], ${column('size')}::bigint[]) as row (sha256, size)`)
    await db.execute(sql`insert into files (id, title, handle, edition, folder, position, tags, created, changed)
      select id, title, name, 1, folder, 0, tags::text[], now() - days * interval '1 day', now() - days * interval '1 day'
      from unnest(${column('id')}::text[], ${column('title')}::text[], ${column('name')}::text[], ${column('folder')}::text[], ${column('tags')}::text[], ${column('days')}::int[]) as row (id, title, name, folder, tags, days)`)
    await db.execute(sql`insert into editions (file_id, number, sha256, file_name, media_type)
      select id, 1, sha256, name, media_type from unnest(${column('id')}::text[], ${column('sha256')}::text[], ${column('name')}::text[], ${column('mediaType')}::text[]) as row (id, sha256, name, media_type)`)
    await db.execute(sql`insert into texts (sha256, number, part, body, words)
      select sha256, 0, 'Page 1', body, array_to_tsvector(words::text[]) from unnest(${column('sha256')}::text[], ${column('body')}::text[], ${column('words')}::text[]) as row (sha256, body, words)`)
  }
  await db.execute(sql`analyze`)
  await close()
  // Without it, all of them would be read anew, as after a restore.
  await mkdir(join(data, 'derived'))
}
