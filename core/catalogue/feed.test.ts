import { SaxesParser } from 'saxes'
import { expect, it } from 'vitest'
import { feedXml } from './feed'

const entry = (slug: string, updated: string, title = slug) => ({
  slug: `clays/${slug}`,
  title,
  summary: '',
  published: '2026-01-01T08:00:00.000Z',
  updated,
})
const FEED = { slug: 'clays', title: 'Clays', site: 'Marlpit', origin: 'https://www.marlpit.example', since: '2026-01-01T00:00:00.000Z' }

/** How often each element stands right in the feed, and in each entry. */
function countsOf(xml: string) {
  const parser = new SaxesParser({ xmlns: true })
  const path: string[] = []
  const counts = { feed: {} as Record<string, number>, entries: [] as Record<string, number>[] }
  const spaces = new Set<string>()
  parser.on('opentag', ({ local, uri }) => {
    spaces.add(uri)
    if (path.join('/') === 'feed') {
      counts.feed[local] = (counts.feed[local] ?? 0) + 1
      if (local === 'entry') counts.entries.push({})
    } else if (path.at(-1) === 'entry') counts.entries.at(-1)![local] = (counts.entries.at(-1)![local] ?? 0) + 1
    path.push(local)
  })
  parser.on('closetag', () => void path.pop())
  parser.write(xml).close()
  return { ...counts, spaces: [...spaces] }
}

// RFC 4287, 4.1.1 and 4.1.2: exactly one id, title and updated in the feed and in each entry; an author; an entry without content has a
// link to what it stands for. Section 1.2: the namespace.
it('a feed has what Atom asks of it', () => {
  const { feed, entries, spaces } = countsOf(
    feedXml({ ...FEED, entries: [entry('crank', '2026-11-01T08:00:00.000Z'), entry('white', '2026-11-02T08:00:00.000Z')] }),
  )
  expect(spaces).toEqual(['http://www.w3.org/2005/Atom'])
  expect(feed).toMatchObject({ id: 1, title: 1, updated: 1, author: 1, link: 1, entry: 2 })
  for (const each of entries) expect(each).toMatchObject({ id: 1, title: 1, updated: 1, link: 1 })
})

it('says when it changed last, and escapes what is written', () => {
  const xml = feedXml({
    ...FEED,
    entries: [entry('a', '2026-11-01T08:00:00.000Z', 'Clay & <grog>\u0001'), entry('b', '2026-10-01T08:00:00.000Z')],
  })
  expect(/<updated>(.*)<\/updated>/.exec(xml)?.[1]).toBe('2026-11-01T08:00:00.000Z')
  expect(xml).toContain('<title>Clay &amp; &lt;grog&gt;</title>')
  expect(/<updated>(.*)<\/updated>/.exec(feedXml({ ...FEED, entries: [] }))?.[1]).toBe(FEED.since)
})
