import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Comparison } from '../core/editions/comparison'
import { makePdf } from '../demo/pdf'
import { OWNER } from '../demo/owner'
import { beginUpload, cookieOf, sendFrom } from '../e2e/support/upload'
import { ownerApi } from '../e2e/support/owner'
import { startServer } from '../e2e/support/server'
import { openTrough } from '../server/trough'
import { interleaved, median, pacedP99, timed } from './measure'
import { report, sayEnd } from './report'

const PAGES = 100
const ROUNDS = 5
const PACE = 100

const folder = await mkdtemp(join(tmpdir(), 'trough-bench-editions-'))

/** A price list of very many pages; every tenth price of the later one is another. */
function longList(later: boolean): Promise<Buffer> {
  const sections = Array.from({ length: PAGES }, (_, page) => ({
    heading: `Group ${page + 1}`,
    table: [
      ['Article', 'Unit', 'Price'],
      ...Array.from({ length: 28 }, (_, row) => [
        `Article ${page * 28 + row}`,
        'each',
        (((row + page) % 50) + (later && row % 10 === 0 ? 0.5 : 0)).toFixed(2),
      ]),
    ],
  }))
  return makePdf({ title: 'All articles', subtitle: later ? 'December 2026' : 'November 2026', sections }, new Date('2026-11-20'))
}

const trough = await openTrough({ data: folder })
await trough.account.create(OWNER.email, OWNER.password)
await trough.close()
const server = await startServer(folder)
try {
  const [cookie, api] = [await cookieOf(server.url), await ownerApi(server.url)]
  const bring = async (name: string, bytes: Buffer, more?: Record<string, string>) =>
    (await sendFrom(await beginUpload(server.url, cookie, name, bytes.length, more), cookie, 0, bytes)).headers.get('trough-file')!
  const id = await bring('articles-2026-11.pdf', await longList(false))
  await bring('articles-2026-12.pdf', await longList(true), { edition: id })
  const small = `${server.url}/files/${(await api<{ handle: string }>(`/files/${await bring('small.bin', Buffer.alloc(20_000, 'x'))}`)).handle}`
  while ((await api<{ waiting: number }>('/reading')).waiting) await new Promise(resolve => setTimeout(resolve, 200))

  const compare = () => api<Comparison>(`/files/${id}/editions/2/comparison`)
  const { now, next, texts } = await compare()
  console.log(`\nTwo PDFs held against each other, of ${now.facts.pages} and ${next.facts.pages} pages`)
  report('pages of the shorter one', Math.min(now.facts.pages!, next.facts.pages!), '', { least: PAGES })
  report('changes found', texts!.total, '', { least: PAGES })
  const times: number[] = []
  for (let round = 0; round < ROUNDS; round++) times.push(await timed(compare))
  report('comparing them, median', median(times), 's', { most: 3 })
  const { idle, busy } = await interleaved(ROUNDS, {
    idle: () => pacedP99(small, PACE, 3),
    busy: async () => {
      let comparing = true
      const comparisons = (async () => {
        while (comparing) await compare()
      })()
      const p99 = await pacedP99(small, PACE, 3)
      comparing = false
      await comparisons
      return p99
    },
  })
  report('p99 of a 20 kB delivery at 100/s, idle, median of 5', idle, 'ms')
  report('p99 while they are compared again and again', busy, 'ms')
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
process.exitCode = sayEnd()
