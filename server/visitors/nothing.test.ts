import { once } from 'node:events'
import { createServer, type Server } from 'node:http'
import { connect, type AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openTestTrough, type TestTrough } from '../testing/harness'
import { answerNothingAtOnce } from './nothing'
import { noPage } from './page'

let test: TestTrough
let server: Server
let port: number

/** One answer after another to requests that are sent in one piece, so that they come in one turn of the loop. */
async function answersTo(...paths: string[]): Promise<string[]> {
  const socket = connect(port, '127.0.0.1')
  socket.end(
    paths.map((path, at) => `GET ${path} HTTP/1.1\r\nHost: a\r\n${at === paths.length - 1 ? 'Connection: close\r\n' : ''}\r\n`).join(''),
  )
  let all = ''
  for await (const some of socket) all += String(some)
  return all.split(/HTTP\/1\.1 (?=\d{3} )/).slice(1)
}
const isAtOnce = async (path: string) => (await answersTo(path))[0]!.startsWith('404')
/** What it takes is in memory. */
async function warm(): Promise<void> {
  await test.trough.knownSlugs.find('')
  await test.trough.published.message(noPage())
}

beforeAll(async () => {
  test = await openTestTrough()
  server = createServer((request, response) => {
    if (!answerNothingAtOnce(test.trough, request, response, request.url!.split('?')[0]!)) response.end('the longer way')
  }).listen(0, '127.0.0.1')
  await once(server, 'listening')
  port = (server.address() as AddressInfo).port
})
afterAll(async () => {
  server.close()
  await test.close()
})

const shows = (path: string, atOnce: boolean) => expect.poll(() => isAtOnce(path)).toBe(atOnce)

it('is said at once when what it takes is in memory', async () => {
  await test.trough.oldAddresses.warm()
  expect(await isAtOnce('/nowhere')).toBe(false)
  await warm()
  await shows('/nowhere', true)
  const [answer] = await answersTo('/nowhere')
  expect(answer).toMatch(/^404 Not Found\r\n/)
  expect(answer).toContain('\r\nCache-Control: no-store\r\n')
})

it('is said to one in a turn of the loop: all others wait for theirs', async () => {
  await warm()
  await shows('/nowhere', true)
  const answers = await answersTo('/nowhere', '/nowhere-else', '/nor-here')
  expect(answers.map(answer => answer.startsWith('404'))).toEqual([true, false, false])
})

it('is not said of what is there, may be there, or was meant to be', async () => {
  const { pages, oldAddresses } = test.trough
  await warm()
  for (const path of ['/guides', '/old.html']) await shows(path, true)
  const page = await pages.create({ title: 'Guides', slug: 'guides' })
  await pages.publish(page.id)
  await oldAddresses.bring('/old.html\n')
  await oldAddresses.warm()
  const others = [
    '/',
    '/guides',
    '/old.html',
    '/old.html?a=1',
    '/old.html/',
    '/Guides',
    '/robots.txt',
    '/files/nothing.pdf',
    '/guides/clay',
  ]
  for (const path of others)
    await expect
      .poll(
        async () => {
          await warm()
          return isAtOnce(path)
        },
        { message: path },
      )
      .toBe(false)
  await shows('/nowhere', true)
})
