import { newGuestsSchema, type NewGuests } from './guest'

/** A name with an address behind it, as mail programs write them (RFC 5322, section 3.4: name-addr), or an address alone. */
const MAILBOX = /^(?:"?([^"<>]*?)"?\s*<([^<>\s]+)>|(\S+@\S+))$/

/**
 * Reads people as somebody writes or pastes them: one a line, or parted by semicolons; a comma parts them, too, where each part has an
 * address.
 *
 * @returns who can be put in, each address once, and the lines that name nobody
 */
export function readGuests(text: string): { guests: NewGuests['guests']; unread: string[] } {
  const lines = text
    .split(/[\n;\t]/)
    .flatMap(line => (line.split(',').every(part => part.includes('@')) ? line.split(',') : [line]))
    .map(line => line.trim())
    .filter(Boolean)
  const guests = new Map<string, NewGuests['guests'][number]>()
  const unread: string[] = []
  for (const line of lines) {
    const [, name = '', behind, alone] = MAILBOX.exec(line) ?? []
    const one = newGuestsSchema.shape.guests.element.safeParse({ email: (behind ?? alone ?? '').replace(/[,.]$/, ''), name })
    if (!one.success) unread.push(line)
    else if (!guests.has(one.data.email)) guests.set(one.data.email, one.data)
  }
  return { guests: [...guests.values()], unread }
}
