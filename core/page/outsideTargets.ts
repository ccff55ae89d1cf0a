import { z } from 'zod'

/* What lies outside the site, and can be led to. */

/** An address elsewhere; scripts and data are no places to lead to. */
export const addressSchema = z
  .url({ protocol: /^https?$/, error: 'Give a whole address, such as https://www.example.com/.' })
  .max(2000, 'Keep an address to 2,000 characters.')
/** An address of a person or shop. */
export const emailSchema = z.email('Give an e-mail address, such as shop@example.com.').max(254)
/** As people write it: digits with spaces, dots, brackets and dashes, a plus in front at the most (RFC 3966). */
export const phoneSchema = z
  .string()
  .max(40)
  .regex(/^\+?[\d(][\d\s().\-/]{3,}$/, 'Give a phone number, such as +44 20 7946 0000.')
