import { brotliDecompressSync, gunzipSync } from 'node:zlib'
import { request } from 'node:http'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { listen, openTestTrough, sha256, type TestTrough } from '../../testing/harness'
import { answerFile } from '../../visitors/file'

const TEXT = 'glaze, clay, price\n'.repeat(5000)
let test: TestTrough
let server: Awaited<ReturnType<typeof listen>>
beforeAll(async () => {
  test = await openTestTrough()
  server = await listen((incoming, response) =>
    answerFile(test.trough, incoming, response, new URL(incoming.url!, 'http://x').pathname, ''),
  )
})
afterAll(async () => {
  await server.close()
  await test.close()
})

/** The answer as it is on the wire: fetch would unpack it. */
const get = (handle: string, headers: Record<string, string>) =>
  new Promise<{ status: number; headers: Record<string, string>; body: Buffer }>((resolve, reject) => {
    request(`${server.url}/files/${handle}`, { headers }, response => {
      const chunks: Buffer[] = []
      response.on('data', (chunk: Buffer) => chunks.push(chunk))
      response.on('end', () =>
        resolve({ status: response.statusCode!, headers: response.headers as Record<string, string>, body: Buffer.concat(chunks) }),
      )
    })
      .on('error', reject)
      .end()
  })

it('text is sent packed to those who take it, each form with validators and digest of its own (RFC 9110, 8.8.3.3; RFC 9530)', async () => {
  const { handle } = await test.put('rates.csv', TEXT)
  const first = await get(handle, { 'Accept-Encoding': 'br' })
  expect([first.headers['content-encoding'], first.body.toString(), first.headers.vary]).toEqual([undefined, TEXT, 'Accept-Encoding'])
  await expect.poll(async () => (await get(handle, { 'Accept-Encoding': 'gzip, br' })).headers['content-encoding']).toBe('br')
  const [br, gzip, plain] = [
    await get(handle, { 'Accept-Encoding': 'br' }),
    await get(handle, { 'Accept-Encoding': 'gzip' }),
    await get(handle, {}),
  ]
  expect([brotliDecompressSync(br.body).toString(), gunzipSync(gzip.body).toString(), plain.body.toString()]).toEqual([TEXT, TEXT, TEXT])
  expect(new Set([br, gzip, plain].map(answer => answer.headers.etag)).size).toBe(3)
  for (const answer of [br, gzip, plain]) {
    expect(answer.headers['content-length']).toBe(String(answer.body.length))
    expect(answer.headers['repr-digest']).toBe(`sha-256=:${Buffer.from(sha256(answer.body), 'hex').toString('base64')}:`)
  }
  expect(br.body.length).toBeLessThan(TEXT.length / 10)
  expect((await get(handle, { 'Accept-Encoding': 'br', 'If-None-Match': br.headers.etag! })).status).toBe(304)
  const part = await get(handle, { 'Accept-Encoding': 'gzip', 'Range': 'bytes=10-19', 'If-Range': gzip.headers.etag! })
  expect([part.status, part.body.equals(gzip.body.subarray(10, 20))]).toEqual([206, true])
  // The validator of one form is none of another: the whole is sent.
  expect((await get(handle, { 'Range': 'bytes=10-19', 'If-Range': gzip.headers.etag! })).status).toBe(200)
})

it('other types, and text that does not shrink, go out as they are', async () => {
  const pdf = await test.put('a.pdf', `%PDF-1.7\n${TEXT}`)
  await get(pdf.handle, { 'Accept-Encoding': 'br' })
  const answer = await get(pdf.handle, { 'Accept-Encoding': 'br' })
  expect([answer.headers['content-encoding'], answer.headers.vary]).toEqual([undefined, undefined])
})
