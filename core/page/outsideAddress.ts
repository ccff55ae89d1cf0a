import type { Reference } from './schema'

/** Spaces, brackets and dashes are for people (RFC 3966, 3: visual separators). */
export const dialled = (number: string): string => number.replace(/[^\d+]/g, '')

/**
 * The address of what lies outside this site, the same for all ways of writing it (WHATWG URL; RFC 3986, 6.2.2);
 * null for what is of this site.
 */
export function outsideAddress(reference: Reference): string | null {
  switch (reference.kind) {
    case 'address':
      return new URL(reference.href).href
    // The part before the @ may be told apart by case (RFC 5321, 2.4).
    case 'email':
      return `mailto:${reference.address.replace(/@.*/, domain => domain.toLowerCase())}`
    case 'phone':
      return `tel:${dialled(reference.number)}`
    default:
      return null
  }
}
