import { Readable } from 'node:stream'
import type { IncomingMessage } from 'node:http'
import { makePdf, type PdfSpec } from './pdf'
import { FORMS_BOX } from './pages'
import * as texts from './texts'
import type { Trough } from '../server/trough'

const CAME = new Date('2026-11-26T15:20:00Z')

/** Trade account forms that came back: one waits, one was put away. */
const SENT: { name: string; email: string; words: string; files: [name: string, spec: PdfSpec][]; away: boolean }[] = [
  {
    name: 'Wheel Works',
    email: 'office@wheel-works.example',
    words: 'We moved in October: the new address is on page 1.',
    files: [['account-form-wheel-works.pdf', texts.filledForm('Wheel Works')]],
    away: true,
  },
  {
    name: 'Hollow Lane School',
    email: 'office@hollow-lane-school.example',
    words: 'Signed by the head; the letterhead is the second file.',
    files: [
      ['trade account form, signed.pdf', texts.filledForm('Hollow Lane School')],
      ['letterhead.pdf', texts.letterhead],
    ],
    away: false,
  },
]

/** A form as a browser sends it. */
async function requestWith(body: FormData): Promise<IncomingMessage> {
  const sent = new Response(body)
  const bytes = Buffer.from(await sent.arrayBuffer())
  const headers = { 'content-type': sent.headers.get('content-type')!, 'content-length': String(bytes.length) }
  return Object.assign(Readable.from([bytes]), { headers, setTimeout: () => undefined }) as unknown as IncomingMessage
}

/** What visitors handed in by the letterbox of the trade page. */
export async function fillLetterbox({ letterbox, arrivals }: Trough): Promise<void> {
  for (const { name, email, words, files, away } of SENT) {
    const form = new FormData()
    for (const [field, value] of Object.entries({ name, email, words, answers: 'trade-account-form-2026-03.pdf' }))
      form.append(field, value)
    for (const [fileName, spec] of files) form.append('files', new Blob([new Uint8Array(await makePdf(spec, CAME))]), fileName)
    await letterbox.handIn(FORMS_BOX, await requestWith(form), { address: '203.0.113.7', secure: true, origin: '' })
    const { items } = await arrivals.list({ q: email, from: 0, limit: 1 })
    if (away) await arrivals.putAway(items[0]!.id, true, 'owner@marlpit.example')
  }
}
