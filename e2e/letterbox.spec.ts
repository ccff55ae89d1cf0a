import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { readdir } from 'node:fs/promises'
import { connect } from 'node:net'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import PDFDocument from 'pdfkit'
import type { Arrival } from '../core/letterbox/arrival'
import { button, letterbox, shelf, words } from '../core/testing/pages'
import { makeGate, visitor } from './support/gates'
import { newPage, openDesk, ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { cookieOf, upload } from './support/upload'

// Visitors hand files in, from outside over real connections; each from a network of their own, as a front server tells it.

let server: RunningServer
let api: Awaited<ReturnType<typeof ownerApi>>
let folder: string
let form: { id: string; handle: string }
test.beforeAll(async () => {
  process.env.TROUGH_PROXIES = '127.0.0.1'
  server = await startServer(await makeData('demo')).finally(() => delete process.env.TROUGH_PROXIES)
  api = await ownerApi(server.url)
  folder = (await api<{ id: string }>('/folders', { method: 'POST', json: { name: 'Forms that came back', parent: null } })).id
  form = await api(`/files/${await upload(server.url, 'joining-us.pdf', await pdf('Joining us'))}`)
  await live(
    'Send it back',
    words('Fill it in, sign it, send it back.'),
    button({ placement: 'formbutton1', target: { kind: 'file', id: form.id }, label: '' }),
    letterbox({ placement: 'sendback1', label: 'Joining form', folder }),
    letterbox({ placement: 'pictures1', kinds: ['picture', 'document'], most: 2, largest: 1 }),
    shelf({ placement: 'cameshelf1', source: { kind: 'folder', id: folder, order: 'newest', below: 'no' } }),
  )
})
test.afterAll(() => server.remove())

async function pdf(title: string): Promise<Buffer> {
  const document = new PDFDocument({ size: [300, 200] })
  const chunks: Buffer[] = []
  document.on('data', (chunk: Buffer) => chunks.push(chunk))
  document.text(title).end()
  await once(document, 'end')
  return Buffer.concat(chunks)
}
async function live(title: string, ...content: object[]) {
  const page = await api<{ id: string; slug: string; revision: number }>('/pages', { method: 'POST', json: { title } })
  await api(`/pages/${page.id}/draft`, { method: 'PUT', json: { title, draft: { type: 'doc', content }, revision: page.revision } })
  await api(`/pages/${page.id}/publish`, { method: 'POST', json: {} })
  return page
}
const sum = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')
let networks = 0
const elsewhere = () => ({ 'x-forwarded-for': `203.0.113.${++networks}` })

/** A form as browsers send it: what it asks in its order, then the files. */
function filledIn(fields: Record<string, string>, files: [name: string, bytes: Buffer][]): FormData {
  const data = new FormData()
  for (const [name, value] of Object.entries({ name: 'Ada Glaze', email: 'ada@wheel-works.example', ...fields })) data.append(name, value)
  for (const [name, bytes] of files) data.append('files', new Blob([new Uint8Array(bytes)]), name)
  return data
}
const handIn = (placement: string, body: FormData, headers: Record<string, string> = elsewhere()) =>
  fetch(`${server.url}/hand-in/${placement}`, { method: 'POST', body, headers, redirect: 'manual' })
const arrived = async (q: string): Promise<Arrival[]> => (await api<{ items: Arrival[] }>(`/arrivals?q=${encodeURIComponent(q)}`)).items
const newestTo = async (to: string) => {
  const { items } = await api<{ items: { id: string; to: string; subject: string }[] }>('/outbox?limit=200')
  const found = items.find(item => item.to === to)
  return found && api<{ subject: string; text: string; headers: Record<string, string> }>(`/outbox/${found.id}`)
}
/** Bytes that are on their way in. */
const halfDone = async (data = server.data) => (await readdir(join(data, 'incoming'))).filter(name => name.endsWith('.part')).length

test('a visitor without script hands in two files, is given a receipt, and nobody but the desk gets them', async ({ browser }) => {
  const [signed, plan] = [await pdf('Signed by Ada Glaze'), Buffer.from('kiln,room\n1,2\n')]
  const context = await browser.newContext({ javaScriptEnabled: false, viewport: { width: 390, height: 800 } })
  const page = await context.newPage()
  await page.goto(`${server.url}/send-it-back`)
  const box = page.getByRole('form', { name: 'Joining form' })
  await box.getByLabel('Your name').fill('Ada Glaze')
  await box.getByLabel('Your e-mail address').fill('Ada@Wheel-Works.example')
  await box.getByLabel('A line about it').fill('Two kilns, please')
  await box.getByLabel('Your files').setInputFiles([
    { name: 'signed.pdf', mimeType: 'application/pdf', buffer: signed },
    { name: 'plan.csv', mimeType: 'text/csv', buffer: plan },
  ])
  await box.getByRole('button', { name: 'Send' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^It has arrived: number \d+\.$/)
  await expect(page.getByRole('listitem').filter({ hasText: 'signed.pdf' })).toContainText(sum(signed))
  await expect(page.getByRole('listitem').filter({ hasText: 'plan.csv' })).toContainText(sum(plan))
  // Read again it is the same, and nothing is sent once more.
  await page.reload()
  await expect(page.getByText('A receipt is on its way to ada@wheel-works.example')).toBeVisible()
  await context.close()

  const [arrival, ...others] = await arrived('Two kilns')
  expect(others).toEqual([])
  expect(arrival).toMatchObject({
    name: 'Ada Glaze',
    email: 'ada@wheel-works.example',
    letterbox: 'Joining form',
    pageTitle: 'Send it back',
    answers: { id: form.id, title: 'Joining us' },
    away: null,
  })
  const ids = arrival!.files.map(({ id }) => id!)
  const kept = await Promise.all(ids.map(id => api<{ folder: string; gate: string; handle: string; mediaType: string }>(`/files/${id}`)))
  expect(kept.map(file => [file.folder, file.gate, file.mediaType])).toEqual([
    [folder, 'closed', 'application/pdf'],
    [folder, 'closed', 'text/csv'],
  ])
  expect(kept[0]!.handle).toBe(`in-${arrival!.number}-signed.pdf`)

  const receipt = (await newestTo('ada@wheel-works.example'))!
  expect(receipt.subject).toContain(String(arrival!.number))
  for (const held of [sum(signed), sum(plan), 'signed.pdf', `/hand-in/receipt/`]) expect(receipt.text).toContain(held)
  const told = (await newestTo('owner@marlpit.example'))!
  for (const held of ['Ada Glaze', 'ada@wheel-works.example', '2 files', 'Two kilns, please', `/desk/letterbox?at=${arrival!.id}`])
    expect(told.text).toContain(held)

  // Visitors find nothing, by any address, and it is told from what was never there by nothing.
  const bundle = await api<{ id: string; handle: string }>('/bundles', {
    method: 'POST',
    json: { title: 'All forms', files: [form.id], folders: [folder] },
  })
  for (const { handle } of kept)
    for (const path of [
      `/files/${handle}`,
      `/files/${handle}?save`,
      `/files/${handle}?edition=1`,
      `/see/${handle}`,
      `/pictures/${handle}?width=320`,
    ]) {
      const [here, nowhere] = await Promise.all([path, path.replace(/in-\d+/, 'in-99999')].map(each => fetch(server.url + each)))
      expect([here!.status, await here!.text()], path).toEqual([404, await nowhere!.text()])
    }
  for (const path of ['/send-it-back', '/shelves/find?q=signed', '/shelves/find?q=Glaze', '/sitemap.xml', `/see/${bundle.handle}`])
    expect(await (await fetch(server.url + path)).text(), path).not.toMatch(/signed\.pdf|in-\d+-|Signed by/)
  const zip = Buffer.from(await (await fetch(`${server.url}/files/${bundle.handle}`)).arrayBuffer())
  expect([zip.includes('joining-us.pdf'), zip.includes('signed.pdf')]).toEqual([true, false])
  expect((await fetch(`${server.url}/shelves/cameshelf1?all=`)).status).toBe(410)

  // Until the owner says so.
  await api(`/files/${ids[0]}`, { method: 'PATCH', json: { gate: null } })
  expect(sum(Buffer.from(await (await fetch(`${server.url}/files/${kept[0]!.handle}?save`)).arrayBuffer()))).toBe(sum(signed))
})

test('what cannot be taken is said, with what was written, and nothing of it is kept', async () => {
  const before = (await api<{ total: number }>('/arrivals')).total
  const cases: [placement: string, body: FormData, words: string | RegExp][] = [
    ['sendback1', filledIn({}, []), 'Choose at least one file.'],
    ['sendback1', filledIn({ name: '  ' }, [['a.txt', Buffer.from('a')]]), 'Something is missing'],
    ['sendback1', filledIn({ email: 'nobody' }, [['a.txt', Buffer.from('a')]]), 'Write an e-mail address'],
    ['sendback1', filledIn({ email: 'a@b.example\r\nBcc: c@d.example' }, [['a.txt', Buffer.from('a')]]), 'Write an e-mail address'],
    [
      'pictures1',
      filledIn({}, [['tool.pdf', Buffer.from('MZ\x90\x00'.padEnd(4096, '\0'), 'latin1')]]),
      '“tool.pdf” is of a kind that is not taken',
    ],
    ['pictures1', filledIn({}, [['big.txt', Buffer.alloc(1_000_001, 'x')]]), 'larger than 1 MB'],
    [
      'pictures1',
      filledIn(
        {},
        [1, 2, 3].map(number => [`${number}.txt`, Buffer.from('a')]),
      ),
      'Only 2 files can be sent at once.',
    ],
    // What fills in the field that nobody sees is a robot.
    ['sendback1', filledIn({ website: 'https://spam.example' }, [['a.txt', Buffer.from('a')]]), 'Something is missing'],
  ]
  for (const [placement, body, said] of cases) {
    const response = await handIn(placement, body)
    const html = await response.text()
    expect(response.status, String(said)).toBe(422)
    expect(html).toContain(said)
    expect(html).toContain('value="Ada Glaze"'.replace('Ada Glaze', String(body.get('name')).trim() ? 'Ada Glaze' : ''))
  }
  expect((await api<{ total: number }>('/arrivals')).total).toBe(before)
  expect(await halfDone()).toBe(0)
})

test('what a file answers tells nothing of files that are hidden', async () => {
  const hidden = await api<{ handle: string }>(`/files/${await upload(server.url, 'hidden-form.txt', Buffer.from('hidden'))}`)
  const told = async (answers: string) => (await handIn('sendback1', filledIn({ answers }, []))).text()
  expect(await told(hidden.handle)).toContain(hidden.handle)
  const { items } = await api<{ items: { id: string }[] }>('/files?q=hidden-form')
  await api(`/files/${items[0]!.id}`, { method: 'PATCH', json: { gate: 'closed' } })
  expect(await told(hidden.handle)).toBe(await told('never-there.txt'))
})

test('names that lead elsewhere, and files with script, come in as what they are and run nowhere', async () => {
  const script = '<script>document.title = "ran"</script>'
  const response = await handIn(
    'sendback1',
    filledIn({ name: `Bo <b>${script}`, words: 'line one\r\nSubject: line two' }, [
      ['../../../etc/passwd', Buffer.from('root')],
      ['C:\\Windows\\..\\shell.html', Buffer.from(`<!DOCTYPE html>${script}`)],
      ['sign.svg', Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg">${script}</svg>`)],
      [`${'long'.repeat(100)}.txt`, Buffer.from('long')],
    ]),
  )
  expect(response.status).toBe(303)
  const receipt = await (await fetch(server.url + response.headers.get('location'))).text()
  expect(receipt).not.toContain(script)
  const [arrival] = await arrived('line one')
  expect(arrival!.words).toBe('line one Subject: line two')
  for (const { fileName } of arrival!.files) expect(fileName).not.toMatch(/[/\\]|\.\./)
  expect(arrival!.files.map(({ fileName }) => fileName).slice(0, 3)).toEqual(['passwd', 'shell.html', 'sign.svg'])
  expect(arrival!.files[3]!.fileName.length).toBeLessThanOrEqual(255)
  for (const { id } of arrival!.files) {
    // At the desk, too, they are saved, never run on its origin (WHATWG HTML, sandboxing).
    const bytes = await fetch(`${server.url}/api/files/${id}/bytes`, { headers: { cookie: await cookieOf(server.url) } })
    const type = bytes.headers.get('content-type')!
    if (!/^text\/plain/.test(type))
      expect(bytes.headers.get('content-security-policy') ?? bytes.headers.get('content-disposition')).toMatch(/sandbox|attachment/)
  }
})

test('much more than was asked for is refused before it is there, and what breaks off leaves nothing', async () => {
  const { port } = new URL(server.url)
  const raw = (head: string[], body = '') =>
    new Promise<string>(resolve => {
      const socket = connect(Number(port), '127.0.0.1')
      let answer = ''
      socket.on('data', (chunk: Buffer) => (answer += chunk))
      socket.on('close', () => resolve(answer))
      socket.on('error', () => undefined)
      socket.write(
        ['POST /hand-in/sendback1 HTTP/1.1', 'Host: localhost', `X-Forwarded-For: 203.0.113.${++networks}`, ...head, '', body].join('\r\n'),
      )
    })
  const multipart = 'Content-Type: multipart/form-data; boundary=x'
  // 50 GB announced: not one byte of it is waited for.
  expect(await raw(['Content-Length: 50000000000', multipart])).toMatch(/^HTTP\/1\.1 413 .*connection: close/is)
  // No form at all.
  expect(await raw(['Content-Length: 2', 'Content-Type: application/json'], '{}')).toMatch(/^HTTP\/1\.1 400 /)
  expect(await raw(['Content-Length: 2', multipart], '{}')).toMatch(/^HTTP\/1\.1 400 /)

  // Ten thousand files.
  const part = 'Content-Disposition: form-data; name="files"; filename="a.txt"\r\n\r\na\r\n'
  const fields = ['name', 'email']
    .map(name => `--x\r\nContent-Disposition: form-data; name="${name}"\r\n\r\n${name}@b.example\r\n`)
    .join('')
  const many = `${fields}${`--x\r\n${part}`.repeat(10_000)}--x--\r\n`
  const body = await fetch(`${server.url}/hand-in/sendback1`, {
    method: 'POST',
    body: many,
    headers: { ...elsewhere(), 'content-type': 'multipart/form-data; boundary=x' },
  })
  expect([body.status, (await body.text()).includes('Only 5 files can be sent at once.')]).toEqual([422, true])

  // A connection that ends in the middle of a file.
  const before = (await api<{ total: number }>('/arrivals')).total
  await new Promise<void>(resolve => {
    const socket = connect(Number(port), '127.0.0.1', () => {
      socket.write(
        `POST /hand-in/sendback1 HTTP/1.1\r\nHost: localhost\r\nX-Forwarded-For: 203.0.113.${++networks}\r\nContent-Length: 5000000\r\n${multipart}\r\n\r\n${fields}--x\r\n${part}${'b'.repeat(300_000)}`,
      )
      setTimeout(() => socket.destroy(), 300)
    })
    socket.on('close', () => resolve())
  })
  await expect.poll(() => halfDone()).toBe(0)
  expect((await api<{ total: number }>('/arrivals')).total).toBe(before)
})

test('a network that hands in too often waits, and only so many come at once', async () => {
  const same = elsewhere()
  const file: [string, Buffer][] = [['a.txt', Buffer.from('a')]]
  const statuses: number[] = []
  for (let tries = 0; tries < 31; tries++) statuses.push((await handIn('sendback1', filledIn({ name: '' }, file), same)).status)
  expect(statuses).toEqual([...Array<number>(30).fill(422), 429])
  // Nobody's mailbox is filled by it: four receipts an hour to one address.
  const own: number[] = []
  for (let tries = 0; tries < 5; tries++) own.push((await handIn('sendback1', filledIn({ email: 'cy@wheel-works.example' }, file))).status)
  expect(own).toEqual([303, 303, 303, 303, 429])
})

test('a letterbox behind a gate, or on a page that is not live, takes nothing from others', async () => {
  const gate = await makeGate(server.url, { kind: 'password' }, { name: 'Signers', password: 'cone-ten-down' })
  const page = await live('For signers', letterbox({ placement: 'behindgate' }))
  await api(`/pages/${page.id}/settings`, { method: 'PATCH', json: { gate } })
  const file: [string, Buffer][] = [['a.txt', Buffer.from('a')]]
  expect((await handIn('behindgate', filledIn({}, file))).status).toBe(403)
  const signer = visitor(server.url)
  await signer.enter('/for-signers', { password: 'cone-ten-down' })
  const response = await handIn('behindgate', filledIn({ email: 'di@wheel-works.example' }, file), {
    ...elsewhere(),
    cookie: signer.cookie(),
  })
  expect(response.status).toBe(303)

  const drafted = await api<{ id: string; revision: number }>('/pages', { method: 'POST', json: { title: 'Drafted box' } })
  const draft = { type: 'doc', content: [letterbox({ placement: 'drafted01' })] }
  await api(`/pages/${drafted.id}/draft`, { method: 'PUT', json: { title: 'Drafted box', draft, revision: drafted.revision } })
  for (const placement of ['drafted01', 'nowhere01', '../../api', "x' or 1=1"])
    expect((await handIn(encodeURIComponent(placement), filledIn({}, file))).status, placement).toBe(404)
  // Whoever comes to the address of the form by itself is led to where it stands, as far as they may know of that.
  const led = await fetch(`${server.url}/hand-in/sendback1`, { redirect: 'manual' })
  expect([led.status, led.headers.get('location')]).toEqual([303, '/send-it-back#tr-sendback1'])
  for (const placement of ['drafted01', 'nowhere01'])
    expect((await fetch(`${server.url}/hand-in/${placement}`, { redirect: 'manual' })).status, placement).toBe(404)
  expect((await fetch(`${server.url}/hand-in/receipt/abc~def`)).status).toBe(410)
})

test('who is erased goes with what they handed in, but for what the owner gave to others', async () => {
  const email = 'eve@wheel-works.example'
  await handIn(
    'sendback1',
    filledIn({ email, words: 'erase me' }, [
      ['first.txt', Buffer.from('1')],
      ['second.txt', Buffer.from('2')],
    ]),
  )
  const [arrival] = await arrived('erase me')
  const [first, second] = arrival!.files.map(({ id }) => id!)
  await api(`/files/${second}`, { method: 'PATCH', json: { gate: null } })
  const { items } = await api<{ items: { id: string; last: string }[] }>(`/contacts?q=${email}`)
  expect(items[0]!.last).toBe('Joining form, Send it back')
  await api(`/contacts/${items[0]!.id}`, { method: 'DELETE' })
  expect(await arrived('erase me')).toEqual([])
  await expect(api(`/files/${first}`)).rejects.toThrow('404')
  expect((await api<{ id: string }>(`/files/${second}`)).id).toBe(second)
})

test('the process ends in the middle of a file: nothing of it is left after the next start', async () => {
  const own = await startServer(await makeData('demo'))
  try {
    const ownApi = await ownerApi(own.url)
    const page = await ownApi<{ id: string; revision: number }>('/pages', { method: 'POST', json: { title: 'Box' } })
    const draft = { type: 'doc', content: [letterbox({ placement: 'killedbox' })] }
    await ownApi(`/pages/${page.id}/draft`, { method: 'PUT', json: { title: 'Box', draft, revision: page.revision } })
    await ownApi(`/pages/${page.id}/publish`, { method: 'POST', json: {} })
    const socket = connect(Number(new URL(own.url).port), '127.0.0.1', () => {
      const fields = ['name', 'email']
        .map(name => `--x\r\nContent-Disposition: form-data; name="${name}"\r\n\r\n${name}@b.example\r\n`)
        .join('')
      socket.write(
        `POST /hand-in/killedbox HTTP/1.1\r\nHost: localhost\r\nContent-Length: 5000000\r\nContent-Type: multipart/form-data; boundary=x\r\n\r\n${fields}--x\r\nContent-Disposition: form-data; name="files"; filename="a.txt"\r\n\r\n${'b'.repeat(300_000)}`,
      )
    })
    socket.on('error', () => undefined)
    const parts = () => halfDone(own.data)
    await expect.poll(parts).toBe(1)
    await own.stop('SIGKILL')
    expect(await parts()).toBe(1)
    const again = await startServer(own.data)
    await expect.poll(parts).toBe(0)
    await again.stop()
  } finally {
    await own.remove()
  }
})

test('the owner puts a letterbox on a page; what comes by it waits in the trough by itself, and is put away', async ({ page }) => {
  await openDesk(page, server.url)
  await newPage(page, 'Papers')
  await page.keyboard.type('/letterbox')
  await expect(page.getByRole('option', { name: /^Letterbox/ })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  await page.locator('.letterbox-view').click()
  const note = page.getByRole('region', { name: 'Settings of this letterbox' })
  await note.getByLabel('Called').fill('Papers for us')
  await note.getByRole('button', { name: 'In a folder…' }).click()
  await page.getByRole('combobox', { name: 'Find a folder' }).fill('Forms that')
  await page.getByRole('button', { name: 'Put it there' }).click()
  await expect(note).toContainText('What comes in lies in “Forms that came back”')
  await page.getByRole('button', { name: /^Publish/ }).click()
  await expect(page.getByText('Live as it stands')).toBeVisible()

  const html = await (await fetch(`${server.url}/papers`)).text()
  const placement = /action="\/hand-in\/(\w+)"/.exec(html)![1]!
  await handIn(placement, filledIn({ name: 'Fay', email: 'fay@wheel-works.example' }, [['paper.txt', Buffer.from('A paper')]]))
  const chip = page.getByRole('region', { name: 'The trough' }).getByRole('listitem').filter({ hasText: 'from Fay' })
  await chip.getByRole('link', { name: 'paper.txt' }).click()
  const told = page.getByRole('region', { name: /^Number \d+$/ })
  await expect(told).toContainText('by “Papers for us” on Papers')
  await told.getByRole('link', { name: 'paper.txt' }).click()
  await expect(page.getByText('Fay handed this in on')).toBeVisible()
  await expect(page.getByText('Nobody: only at the desk')).toBeVisible()
  await chip.getByRole('button', { name: 'Put away what Fay handed in' }).click()
  await expect(chip).toHaveCount(0)
  const [arrival] = await arrived('Fay')
  expect(arrival).toMatchObject({ letterbox: 'Papers for us', awayBy: 'owner@marlpit.example' })
})
