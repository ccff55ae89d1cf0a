import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { expect, test } from '@playwright/test'
import { simpleParser, type ParsedMail } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { makeGate, visitor } from './support/gates'
import { ownerApi } from './support/owner'
import { startSmtpd } from './support/smtpd'
import { makeData, startServer, type RunningServer } from './support/server'
import { cookieOf } from './support/upload'

// Messages through a real mail server (RFC 5321), parsed by a library that had no part in writing them (RFC 5322).

interface Item {
  id: string
  to: string
  subject: string
  state: string
  tries: number
  error: string | null
}
let server: RunningServer
let api: Awaited<ReturnType<typeof ownerApi>>
let guide: { id: string; handle: string; title: string }
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
  api = await ownerApi(server.url)
  guide = (await api<{ items: (typeof guide)[] }>('/files?q=wedging')).items[0]!
  await makeGate(
    server.url,
    {
      kind: 'email',
      confirm: true,
      consent: 'You may write to me.',
      fields: [{ id: 'studio01', kind: 'text', label: 'Studio', required: true }],
    },
    { name: 'By letter', files: [guide.id] },
  )
})
test.afterAll(() => server.remove())

const outbox = async () => (await api<{ items: Item[] }>('/outbox')).items
const letterTo = async (to: string) => {
  const item = (await outbox()).find(message => message.to === to)
  return item && api<Item & { text: string; html: string; headers: Record<string, string> }>(`/outbox/${item.id}`)
}
const pathIn = (text: string) => /https:\/\/www\.marlpit\.example(\/pass\/confirm\/\S+)/.exec(text)![1]!
/** Nobody writes as fast as a test. */
const later = () => new Promise(resolve => setTimeout(resolve, 900))

async function leave(
  email: string,
  fields: Record<string, string> = { 'field-studio01': 'Three Bridges', 'consent': 'yes' },
  comer = visitor(server.url),
) {
  const html = await (await comer.ask(`/files/${guide.handle}?save`)).text()
  await later()
  const form = new URLSearchParams({ email, ...fields })
  for (const [, name, value] of html.matchAll(/<input type="hidden" name="([^"]+)" value="([^"]*)"/g)) form.set(name!, value!)
  return comer.ask(/action="(\/pass\/[^"]+)"/.exec(html)![1]!, { method: 'POST', body: form })
}

test('an address is left, confirmed by a link that a scanner does not use up, and the gate opens', async () => {
  const comer = visitor(server.url)
  const sent = await leave('Potter@three-bridges.example', undefined, comer)
  expect([sent.status, (await sent.text()).includes('Look into your mail.')]).toEqual([200, true])
  const letter = (await letterTo('potter@three-bridges.example'))!
  expect([letter.state, letter.headers['List-Unsubscribe-Post']]).toEqual(['waiting', 'List-Unsubscribe=One-Click'])
  const path = pathIn(letter.text)
  // RFC 9110, section 9.2.1: GET is safe. Mail services open links before their receiver does.
  for (let looks = 0; looks < 3; looks++) expect((await fetch(server.url + path)).status).toBe(200)
  const way = await comer.ask(path, { method: 'POST' })
  expect([way.status, way.headers.get('location')]).toEqual([303, `/files/${guide.handle}?save`])
  expect((await comer.ask(`/files/${guide.handle}?save`)).status).toBe(200)
  // It is good for one time.
  expect((await visitor(server.url).ask(path, { method: 'POST' })).status).toBe(410)
  const { items } = await api<{ items: { id: string; email: string; confirmed: string | null; taken: number }[] }>('/contacts?q=potter')
  expect(items).toMatchObject([{ email: 'potter@three-bridges.example', taken: 1 }])
  expect(items[0]!.confirmed).not.toBeNull()
  const contact = await api<{ admissions: object[]; takes: object[] }>(`/contacts/${items[0]!.id}`)
  expect(contact).toMatchObject({
    admissions: [{ gateName: 'By letter', answers: [{ label: 'Studio', value: 'Three Bridges' }], consent: 'You may write to me.' }],
    takes: [{ fileId: guide.id }],
  })
  const exported = await fetch(`${server.url}/api/contacts/export?q=potter`, { headers: { cookie: await cookieOf(server.url) } })
  const table = await exported.text()
  expect(table).toContain('potter@three-bridges.example')

  // Erased, nothing of it is left: neither what was written and taken, nor the message.
  await api(`/contacts/${items[0]!.id}`, { method: 'DELETE' })
  expect((await api<{ total: number }>('/contacts?q=potter')).total).toBe(0)
  expect(await letterTo('potter@three-bridges.example')).toBeUndefined()
})

test('what is missing, too fast, or filled in by a robot comes back with what was written', async () => {
  const refused = await leave('someone@example.org', { 'field-studio01': 'Kept <b>words</b>' })
  const html = await refused.text()
  expect(refused.status).toBe(403)
  expect(html).toContain('Something is missing')
  expect(html).toContain('value="Kept &lt;b&gt;words&lt;/b&gt;"')
  expect(html).toMatch(/name="consent"[^>]*aria-invalid="true"/)
  for (const email of ['nobody', 'a@b', 'a@b.example\r\nBcc: all@example.org', '"x" <a@b.example>', `${'x'.repeat(250)}@b.example`])
    expect([(await leave(email)).status, email]).toEqual([403, email])
  const trapped = await leave('robot@example.org', { 'field-studio01': 'x', 'consent': 'yes', 'website': 'https://spam.example' })
  expect(trapped.status).toBe(403)
  const hasty = await visitor(server.url).enter(`/files/${guide.handle}`, {
    'email': 'hasty@example.org',
    'field-studio01': 'x',
    'consent': 'yes',
  })
  expect(hasty.status).toBe(403)
  for (const to of ['someone@example.org', 'robot@example.org', 'hasty@example.org']) expect(await letterTo(to)).toBeUndefined()
})

test('what was kept is sent when there is a mail service; what it refuses for now comes later, for good never again', async () => {
  const received: { to: string[]; mail: ParsedMail }[] = []
  let busy = true
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onRcptTo(address, _session, done) {
      if (address.address.startsWith('never')) return done(Object.assign(new Error('No such mailbox'), { responseCode: 550 }))
      if (busy && address.address.startsWith('later')) return done(Object.assign(new Error('Try again later'), { responseCode: 451 }))
      done()
    },
    onData(stream, session, done) {
      void simpleParser(stream).then(mail => {
        received.push({ to: session.envelope.rcptTo.map(({ address }) => address), mail })
        done()
      }, done)
    },
  })
  smtp.listen(0, '127.0.0.1')
  await once(smtp.server, 'listening')
  const { port } = smtp.server.address() as AddressInfo
  try {
    for (const who of ['first', 'later', 'never']) await leave(`${who}@three-bridges.example`)
    expect((await outbox()).filter(({ state }) => state === 'sent')).toEqual([])
    await api('/mail', {
      method: 'PUT',
      json: { smtp: `smtp://127.0.0.1:${port}?ignoreTLS=true`, from: 'office@marlpit.example', perHour: 200 },
    })
    const stateOf = async (who: string) => (await outbox()).find(({ to }) => to === `${who}@three-bridges.example`)
    await expect.poll(async () => (await stateOf('first'))?.state).toBe('sent')
    await expect.poll(async () => (await stateOf('never'))?.state).toBe('failed')
    await expect.poll(async () => (await stateOf('later'))?.tries).toBe(1)
    expect((await stateOf('later'))!.state).toBe('waiting')
    expect((await stateOf('never'))!.error).toContain('No such mailbox')

    const { mail } = received.find(({ to }) => to.includes('first@three-bridges.example'))!
    expect(mail.from!.value).toMatchObject([{ address: 'office@marlpit.example', name: 'Marlpit Pottery Supply' }])
    expect(mail.subject).toContain('Your address for')
    expect(mail.messageId).toMatch(/^<[a-z0-9]+@www\.marlpit\.example>$/)
    expect(mail.headers.get('auto-submitted')).toBe('auto-generated')
    // RFC 8058, section 3.1: both fields, and an https address.
    expect(mail.headers.get('list')).toMatchObject({
      unsubscribe: { url: expect.stringMatching(/^https:\/\/www\.marlpit\.example\/pass\/no-more\//) as unknown },
    })
    expect(mail.headers.get('list-unsubscribe-post') ?? JSON.stringify(mail.headers.get('list'))).toContain('One-Click')
    const path = pathIn(mail.text!)
    expect(mail.html).toContain(path)
    expect(mail.html).not.toMatch(/<(?:link|script|img)\b/)

    // The mail program presses once.
    const end = new URL((mail.headers.get('list') as unknown as { unsubscribe: { url: string } }).unsubscribe.url).pathname
    expect((await fetch(server.url + end)).status).toBe(200)
    expect((await api<{ total: number }>('/contacts?q=first')).total).toBe(0)
    const pressed = await fetch(server.url + end, { method: 'POST', body: new URLSearchParams({ 'List-Unsubscribe': 'One-Click' }) })
    expect(pressed.status).toBe(200)
    expect((await api<{ items: { unsubscribed: string | null }[] }>('/contacts?q=first')).items[0]!.unsubscribed).not.toBeNull()
    const refusal = await api(`/files/${guide.id}/links`, {
      method: 'POST',
      json: { note: 'Again', email: 'first@three-bridges.example', send: true },
    }).catch((error: { status: number }) => error.status)
    expect(refusal).toBe(409)

    busy = false
    await api(`/outbox/${(await stateOf('never'))!.id}/again`, { method: 'POST', json: {} })
    await expect.poll(async () => (await stateOf('never'))?.state).toBe('failed')
    expect(received.filter(({ to }) => to.includes('first@three-bridges.example'))).toHaveLength(1)
    // Sent to try the service, by "Send me one".
    expect(await api('/mail/test', { method: 'POST', json: { to: 'owner@marlpit.example' } })).toEqual({ refusal: null })
    expect(received.at(-1)!.mail.text).toContain('It arrived')
  } finally {
    smtp.close()
  }
})

test('a mail server of another make takes the messages as they are meant', async () => {
  const smtpd = await startSmtpd()
  try {
    const own = { smtp: `smtp://127.0.0.1:${smtpd.port}?ignoreTLS=true`, from: 'office@marlpit.example', perHour: 200 }
    await api('/mail', { method: 'PUT', json: own })
    await leave('zoe@kiln-row.example')
    await expect.poll(smtpd.mailbox).toContain('Delivered-To: zoe@kiln-row.example')
    const all = (await smtpd.mailbox()).split(/^(?=Return-Path: )/m)
    const mail = await simpleParser(all.find(one => one.includes('Delivered-To: zoe@kiln-row.example'))!)
    expect(mail.from!.value).toMatchObject([{ address: 'office@marlpit.example', name: 'Marlpit Pottery Supply' }])
    expect(mail.subject).toBe(`Your address for “${guide.title}”`)
    expect(mail.headers.get('auto-submitted')).toBe('auto-generated')
    const path = pathIn(mail.text!)
    expect(mail.html).toContain(path)
    // The link is whole, and does what it says.
    expect((await fetch(server.url + path)).status).toBe(200)
  } finally {
    await api('/mail', { method: 'PUT', json: { smtp: '', from: 'office@marlpit.example', perHour: 200 } })
    await smtpd.stop()
  }
})

test('a message that was on its way when the process was killed is not sent twice', async () => {
  let taken = 0
  let hold: (() => void) | undefined
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onData(stream, _session, done) {
      stream.resume()
      stream.on('end', () => {
        taken++
        // Taken, and the answer is on its way for ever.
        hold = () => done()
      })
    },
  })
  smtp.on('error', () => undefined)
  smtp.listen(0, '127.0.0.1')
  await once(smtp.server, 'listening')
  const { port } = smtp.server.address() as AddressInfo
  const data = await makeData('demo')
  let running = await startServer(data)
  try {
    const owner = await ownerApi(running.url)
    // Of the messages of the demo that wait, one.
    const [, ...others] = (await owner<{ items: Item[] }>('/outbox')).items
    for (const { id } of others) await owner(`/outbox/${id}`, { method: 'DELETE' })
    await owner('/mail', {
      method: 'PUT',
      json: { smtp: `smtp://127.0.0.1:${port}?ignoreTLS=true`, from: 'office@marlpit.example', perHour: 200 },
    })
    await expect.poll(() => taken).toBe(1)
    await running.stop('SIGKILL')
    running = await startServer(data)
    const again = await ownerApi(running.url)
    const states = async () => (await again<{ items: Item[] }>('/outbox')).items.map(({ state }) => state)
    expect(await states()).toEqual(['unsure'])
    await again('/mail', {
      method: 'PUT',
      json: { smtp: `smtp://127.0.0.1:${port}?ignoreTLS=true`, from: 'office@marlpit.example', perHour: 199 },
    })
    expect(await states()).toEqual(['unsure'])
    expect(taken).toBe(1)
  } finally {
    hold?.()
    smtp.close()
    await running.remove()
  }
})
