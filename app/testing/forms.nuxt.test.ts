import { afterEach, describe, expect, it } from 'vitest'
import type { Component } from 'vue'
import PasswordForm from '~/components/account/PasswordForm.vue'
import BundleDialog from '~/components/bundle/BundleDialog.vue'
import FindingRow from '~/components/checks/FindingRow.vue'
import SummaryForm from '~/components/downloads/SummaryForm.vue'
import FetchDialog from '~/components/library/FetchDialog.vue'
import FolderDialog from '~/components/library/FolderDialog.vue'
import HandleForm from '~/components/library/HandleForm.vue'
import FetchHosts from '~/components/setup/FetchHosts.vue'
import SiteForm from '~/components/setup/SiteForm.vue'
import Pages from '~/pages/desk/index.vue'
import OldAddresses from '~/pages/desk/old-addresses.vue'
import SetUp from '~/pages/desk/set-up.vue'
import SignIn from '~/pages/desk/sign-in.vue'
import Signposts from '~/pages/desk/signposts.vue'
import { useAsking } from '~/stores/asking'
import { useSession } from '~/stores/session'
import type { Finding } from '~~/core/walk/finding'
import {
  clearDesk,
  complaints,
  complaintsAt,
  fieldNamed,
  json,
  mountPart,
  press,
  refusal,
  settled,
  standInServer,
  write,
  type Answering,
} from './desk'

const FILE = { id: 'f1', handle: 'price-list.pdf', title: 'Price list' }
const FINDING = {
  key: 'k',
  check: 'label',
  cost: 'tidy',
  label: 'Price list',
  words: 'Its label says no more than the name.',
  detail: '',
  page: { id: 'p', title: 'Trade', edge: null },
  draftOnly: false,
  left: null,
} satisfies Finding

/** What the forms ask before anything is sent. */
const READ: Record<string, unknown> = {
  '/api/fetch-hosts': { hosts: [] },
  '/api/site/icon': { own: false },
  '/api/pages': { items: [], binned: [] },
  '/api/signposts': { items: [], files: [] },
  '/api/timetable': { items: [] },
  '/api/folders': { items: [], binned: [] },
}
const OLD = { items: [], total: 0, open: 0, missed: 0, led: 0 }
const read: Answering = ({ method, path }) =>
  path.startsWith('/api/old-addresses') && method === 'GET' ? json(OLD) : method === 'GET' && path in READ ? json(READ[path]) : undefined

interface Form {
  part: Component
  props?: Record<string, unknown>
  /** pressed before the form is there */
  open?: string
  /** the field that is tried, and what it holds before */
  field: string
  good: string
  /** its name in what is sent */
  sent: string
  /** further fields that have to hold something */
  others?: Record<string, string>
  submit: string
}

const FORMS: Record<string, Form> = {
  'the site': { part: SiteForm, field: 'Name of the site', good: 'Marlpit', sent: 'name', submit: 'Save' },
  'hosts': {
    part: FetchHosts,
    field: 'Hosts of your own network, one a line',
    good: 'nas.example',
    sent: 'hosts',
    submit: 'Save the hosts',
  },
  'a password': {
    part: PasswordForm,
    field: 'The new one',
    good: 'kiln shelf wadding',
    sent: 'password',
    others: { 'The one you have': 'marlpit-demo' },
    submit: 'Change the password',
  },
  'an address of a file': {
    part: HandleForm,
    props: { file: FILE },
    open: 'Change the address…',
    field: 'New address',
    good: 'prices.pdf',
    sent: 'handle',
    submit: 'Change',
  },
  'a folder': { part: FolderDialog, field: 'Name', good: 'Charts', sent: 'name', submit: 'Make the folder' },
  'fetching': {
    part: FetchDialog,
    props: { address: '' },
    field: 'Its address',
    good: 'https://a.example/b.pdf',
    sent: 'address',
    submit: 'Fetch it',
  },
  'a bundle': {
    part: BundleDialog,
    props: { things: { files: ['f1'], folders: [] } },
    field: 'What visitors know it as',
    good: 'First evening',
    sent: 'title',
    submit: 'Make the bundle',
  },
  'leaving a finding': {
    part: FindingRow,
    props: { finding: FINDING },
    open: 'Leave it: “Price list”',
    field: 'It may stay, because',
    good: 'They know it',
    sent: 'because',
    submit: 'Leave it',
  },
  'a page': { part: Pages, open: 'New page', field: 'Title', good: 'Kilns', sent: 'title', submit: 'Make the page' },
  'a signpost': { part: Signposts, open: 'New signpost', field: 'What is it for?', good: 'Timetable', sent: 'title', submit: 'Put it up' },
  'old addresses': { part: OldAddresses, field: 'Or paste addresses, one a line', good: '/a.html', sent: 'text', submit: 'Bring these in' },
  'signing in': {
    part: SignIn,
    field: 'E-mail',
    good: 'owner@marlpit.example',
    sent: 'email',
    others: { Password: 'x' },
    submit: 'Sign in',
  },
  'setting up': {
    part: SetUp,
    field: 'Name of your site',
    good: 'Marlpit',
    sent: 'siteName',
    others: { 'Set-up code': 'abc', 'Your e-mail': 'owner@marlpit.example', 'A password, at least 10 characters': 'kiln shelf wadding' },
    submit: 'Begin',
  },
}

async function open({ part, props, open: opener, others = {} }: Form, answer: Answering) {
  let sending = false
  const asked = standInServer(request => (sending && request.method !== 'GET' ? answer(request) : undefined) ?? read(request))
  const mounted = await mountPart(part, props)
  if (opener) await press(opener)
  for (const [name, text] of Object.entries(others)) await write(name, text)
  sending = true
  return { asked: () => asked.filter(({ method }) => method !== 'GET'), close: () => mounted.unmount() }
}

afterEach(clearDesk)

const HOSTILE = {
  'nothing': '',
  'spaces': '   ',
  '100,000 characters': 'x'.repeat(100_000),
  'signs beyond the first plane': '🏺 Топла печь 🔥',
  'what runs from right to left': 'קטלוג כלי חרס',
  'marks that turn the direction': 'gnp.\u202Efdp',
  'lines that were pasted': 'one\ntwo\r\nthree',
  'markup': '<img src=x onerror=alert(1)>',
}

const TROUBLES: Record<string, { answer: () => Response | Promise<Response>; said: RegExp }> = {
  'what somebody else changed': {
    answer: () => refusal(409, 'It was changed elsewhere.', 'Look again.'),
    said: /changed elsewhere.*Look again/,
  },
  'what it cannot take': { answer: () => refusal(422, 'That cannot be.', 'Give another.'), said: /That cannot be.*Give another/ },
  'too much at once': { answer: () => refusal(429, 'Too many at once.', 'Wait a minute.'), said: /Too many.*Wait a minute/ },
  'a fault of its own': { answer: () => refusal(500, 'Something went wrong.', 'Try again.'), said: /went wrong.*Try again/ },
  'a page of a front server': { answer: () => new Response('<h1>Bad gateway</h1>', { status: 502 }), said: /went wrong.*Try again/ },
  'no answer at all': { answer: () => Promise.reject(new TypeError('Failed to fetch')), said: /cannot be reached.*kept here/ },
}

describe.each(Object.entries(FORMS))('the form of %s', (_, form) => {
  it.each(Object.entries(HOSTILE))('says what to do with %s, or sends it whole, and keeps what was written', async (_what, text) => {
    const { asked, close } = await open(form, () => refusal(422, 'That cannot be.', 'Give another.'))
    await write(form.field, text)
    const written = fieldNamed(form.field).value
    await press(form.submit)
    if (asked().length === 0) expect(complaints()).not.toEqual([])
    else expect(Object.keys(asked()[0]!.body as object)).toContain(form.sent)
    expect(fieldNamed(form.field).value).toBe(written)
    close()
  })

  it.each(Object.entries(TROUBLES))('tells of %s, and keeps what was written', async (_what, { answer, said }) => {
    const { close } = await open(form, answer)
    await write(form.field, form.good)
    await press(form.submit)
    expect(complaints().join(' ')).toMatch(said)
    expect(fieldNamed(form.field).value).toBe(form.good)
    close()
  })

  it('shows at its field what the server finds wrong with it, and the first wrong field has the focus', async () => {
    const { close } = await open(form, () =>
      refusal(422, 'Something is not right.', 'Look below.', { issues: [{ field: form.sent, message: 'This one is taken.' }] }),
    )
    await write(form.field, form.good)
    await press(form.submit)
    expect(complaintsAt(form.field)).toEqual(['This one is taken.'])
    expect(document.activeElement).toBe(fieldNamed(form.field))
    // It goes as soon as something else is written.
    await write(form.field, `${form.good}x`)
    expect(complaintsAt(form.field)).not.toContain('This one is taken.')
    close()
  })

  it('is sent once, however often it is pressed while the answer is late', async () => {
    let answer: (response: Response) => void = () => undefined
    const { asked, close } = await open(form, () => new Promise(resolve => (answer = resolve)))
    await write(form.field, form.good)
    await press(form.submit)
    await press(form.submit).catch(() => undefined)
    document.querySelector('form')!.dispatchEvent(new Event('submit', { bubbles: true, cancelable: true }))
    await settled()
    expect(asked()).toHaveLength(1)
    answer(refusal(409, 'It was changed elsewhere.', 'Look again.'))
    await settled()
    expect(complaints().join(' ')).toMatch(/changed elsewhere/)
    close()
  })
})

describe.each(['an address of a file', 'leaving a finding', 'a page', 'a signpost', 'a folder', 'a bundle'])('the form of %s', name => {
  const form = FORMS[name]!
  const escape = async () => {
    fieldNamed(form.field).dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))
    await settled()
  }

  it('asks before Escape loses what was written, and keeps it where the answer is no', async () => {
    const { close } = await open(form, () => undefined)
    await write(form.field, `${form.good} and more`)
    await escape()
    expect(useAsking().open?.question).toBe('Leave what you wrote?')
    useAsking().open!.answer(false)
    await settled()
    expect(fieldNamed(form.field).value).toBe(`${form.good} and more`)
    close()
  })

  it('goes at once where nothing was written', async () => {
    const { close } = await open(form, () => undefined)
    await escape()
    expect(useAsking().open).toBeUndefined()
    close()
  })
})

describe('what a form is filled with comes late:', () => {
  it.each([
    ['the hosts', FetchHosts, 'Hosts of your own network, one a line', { hosts: ['nas.example'] }, 'nas.example'],
    ['the summary', SummaryForm, 'To', { every: 'month', to: 'shop@marlpit.example' }, 'shop@marlpit.example'],
  ])('%s cannot be written in before', async (_, part, name, kept, held) => {
    let answer: (response: Response) => void = () => undefined
    standInServer(({ method }) => (method === 'GET' ? new Promise(resolve => (answer = resolve)) : undefined))
    const mounted = await mountPart(part)
    expect(fieldNamed(name).disabled).toBe(true)
    answer(json(kept))
    await settled()
    expect(fieldNamed(name).disabled).toBe(false)
    expect(fieldNamed(name).value).toBe(held)
    mounted.unmount()
  })

  it('what somebody else saves of the site is in every field but those that were written in', async () => {
    const asked = standInServer(read)
    const mounted = await mountPart(SiteForm)
    await write('Name of the site', 'Claygate')
    const session = useSession()
    session.site = { ...session.site, language: 'de' }
    await settled()
    expect(fieldNamed('Name of the site').value).toBe('Claygate')
    await press('Save')
    expect(asked.find(({ method }) => method === 'PUT')?.body).toMatchObject({ name: 'Claygate', language: 'de' })
    mounted.unmount()
  })
})
