import type { IncomingMessage, ServerResponse } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { button, pageOf } from '../../../core/testing/pages'
import { listen, openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
let site: Awaited<ReturnType<typeof listen>>
const asked: string[] = []

/** A stand-in for the web. */
async function answer({ method, url }: IncomingMessage, response: ServerResponse): Promise<void> {
  asked.push(`${method} ${url}`)
  const redirects: Record<string, [number, string]> = {
    '/moved': [301, '/new'],
    '/for-now': [302, '/new'],
    '/first-moved': [308, '/for-now'],
    '/circle': [302, '/circle'],
    '/away': [301, 'ftp://x/'],
  }
  const redirect = redirects[url!]
  if (redirect) response.writeHead(redirect[0], { Location: redirect[1] })
  else if (url === '/no-head') response.statusCode = method === 'HEAD' ? 405 : 200
  else if (url === '/gone') response.statusCode = 404
  else if (url === '/cut') return void response.destroy()
  response.end()
}

beforeAll(async () => {
  test = await openTestTrough()
  site = await listen(answer)
})
afterAll(async () => {
  await test.close()
  await site.close()
})

const known = (path: string) => test.trough.outside.known(site.url + path)
const ask = (...paths: string[]) => test.trough.outside.ask(paths.map(path => site.url + path))

describe('addresses elsewhere', () => {
  it('are asked only where the owner wants it', async () => {
    await ask('/new')
    expect([known('/new'), asked]).toEqual([undefined, []])
  })

  it('in a private network are not reached, unless their host is allowed', async () => {
    await test.trough.outside.switch(true)
    await ask('/private')
    expect([known('/private'), asked]).toEqual([{ status: 0, private: true }, []])
    await test.trough.fetching.setHosts([new URL(site.url).host])
  })

  it.each([
    ['/new', { status: 200 }],
    ['/moved', { status: 200, movedTo: '/new' }],
    ['/for-now', { status: 200 }],
    ['/first-moved', { status: 200, movedTo: '/for-now' }],
    ['/circle', { status: 508 }],
    ['/away', { status: 0 }],
    ['/no-head', { status: 200 }],
    ['/gone', { status: 404 }],
    ['/cut', { status: 0 }],
  ] as const)('%s: %j', async (path, expected) => {
    await ask(path)
    expect(known(path)).toEqual({ ...expected, ...('movedTo' in expected && { movedTo: site.url + expected.movedTo }) })
  })

  it('are asked once a day, and what they say stands on the board', async () => {
    const { pages, walk } = test.trough
    const page = await pages.create({ title: 'Links' })
    await pages.saveDraft(page.id, {
      title: 'Links',
      draft: pageOf(button({ target: { kind: 'address', href: `${site.url}/gone` } })),
      revision: 1,
    })
    await pages.publish(page.id)
    const before = asked.length
    const { findings, outside } = await walk.state()
    expect([outside, findings.map(({ check, cost }) => [check, cost])]).toEqual([
      true,
      [
        ['outside', 'misled'],
        ['insecure', 'hard'],
      ],
    ])
    expect(asked).toHaveLength(before)
  })
})
