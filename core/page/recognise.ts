import { addressSchema, emailSchema, phoneSchema } from './outsideTargets'
import type { Target } from './schema'

/** What a text that was typed or pasted leads to: a place of our own by its path, or one elsewhere. */
export type Recognised = { kind: 'own'; path: string } | Extract<Target, { kind: 'address' | 'email' | 'phone' }>

/** A name with a dot in it, as hosts have: `www.example.com`, `example.com/list` (RFC 1034, 3.1, preferred syntax). */
const HOST = /^(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z]{2,24}(?::\d+)?(?:[/?#]|$)/i
const SCHEME = /^[a-z][a-z0-9+.-]*:/i

function recogniseWeb(text: string, ownHosts: readonly string[]): Recognised | undefined {
  // Spaces come along when addresses are copied from a letter; within the path they are written as %20 (RFC 3986, 2.1).
  const whole = HOST.test(text) ? `https://${text}` : text
  if (!/^https?:\/\//i.test(whole) || !URL.canParse(whole)) return undefined
  const url = new URL(whole)
  if (ownHosts.includes(url.host)) return { kind: 'own', path: url.pathname }
  const address = addressSchema.safeParse(url.href)
  return address.success ? { kind: 'address', href: address.data } : undefined
}

/** Whether a text can hardly be meant as anything else: `list.pdf` is a name, although a host could be called that. */
export const isPlainlyAddress = (text: string): boolean => /^(?:https?:\/\/|mailto:|tel:|www\.|\/|[^\s@]+@[^\s@]+\.)/i.test(text.trim())

/**
 * Reads an address, an e-mail address or a phone number; undefined where the text is none of them, or one that no
 * page may lead to (`javascript:`, `data:`).
 *
 * @param ownHosts hosts, with their ports, that this site answers at
 */
export function recognise(input: string, ownHosts: readonly string[]): Recognised | undefined {
  const text = input.trim()
  if (/^\/(?!\/)/.test(text)) return { kind: 'own', path: new URL(text, 'http://own').pathname }
  const email = emailSchema.safeParse(text.replace(/^mailto:/i, ''))
  if (email.success) return { kind: 'email', address: email.data }
  const phone = phoneSchema.safeParse(text.replace(/^tel:/i, ''))
  if (phone.success && (/^tel:/i.test(text) || /^[+0]/.test(text))) return { kind: 'phone', number: phone.data }
  if (SCHEME.test(text) && !/^https?:/i.test(text) && !HOST.test(text)) return undefined
  return recogniseWeb(text, ownHosts)
}
