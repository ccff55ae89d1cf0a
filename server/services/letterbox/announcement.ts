import { composeLetter } from '../../../core/outbox/compose'
import type { NewMessage } from '../outbox/outbox'

/** Tells somebody at the desk, in its language, that something came by a letterbox. */
export function announcementLetter({
  to,
  site,
  origin,
  id,
  number,
  name,
  email,
  words,
  letterbox,
  pageTitle,
  files,
}: {
  to: string
  site: string
  /** scheme and host */
  origin: string
  /** of the arrival */
  id: string
  number: number
  name: string
  email: string
  words: string
  letterbox: string
  pageTitle: string
  files: string[]
}): NewMessage {
  const what = files.length === 1 ? files[0] : `${files.length} files`
  const said = [
    `${name} (${email}) handed in ${what} by “${letterbox}” on the page “${pageTitle}”. Its number is ${number}.`,
    words && `They write: ${words}`,
    'Nobody but you sees it until you say so.',
  ]
  return {
    to,
    subject: `Number ${number} came by the letterbox: ${name}`,
    ...composeLetter({
      words: said.filter(Boolean).join('\n'),
      link: { href: `${origin}/desk/letterbox?at=${id}`, words: 'See what came' },
      site,
    }),
  }
}
