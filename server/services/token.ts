import { createHash, randomBytes } from 'node:crypto'

/** What the link of a message holds: nobody guesses it (NIST SP 800-63B, section 3.1.3.2, asks for 20 bits and short lives). */
export const newToken = (): string => randomBytes(24).toString('base64url')

/** What is kept of it: who reads the database cannot use it. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex')
