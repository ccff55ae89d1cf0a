import { createHash, randomBytes } from 'node:crypto'
import { generateSecret, generateURI, verifySync } from 'otplib'

const PERIOD = 30
const RECOVERY_CODES = 10

const plain = (code: string) => code.toUpperCase().replace(/[\s-]/g, '')
const hashOf = (code: string) => createHash('sha256').update(plain(code)).digest('hex')

/** A secret for an app that shows one-time codes, in Base32, and the address such apps read. */
export function newSecret(issuer: string, email: string): { secret: string; address: string } {
  const secret = generateSecret()
  return { secret, address: generateURI({ issuer, label: email, secret }) }
}

/**
 * The step of time of a one-time code (RFC 6238); undefined where it does not fit. Clocks may differ by a step.
 *
 * @param last the step of the last code that was taken: none fits twice (section 5.2)
 * @param epoch seconds since 1970
 */
export function stepOf(secret: string, code: string, last: number | null, epoch = Math.floor(Date.now() / 1000)): number | undefined {
  const token = code.replace(/\s/g, '')
  if (!/^\d{6}$/.test(token)) return undefined
  const result = verifySync({ secret, token, epoch, epochTolerance: PERIOD })
  if (!result.valid || !('timeStep' in result)) return undefined
  return last !== null && result.timeStep <= last ? undefined : result.timeStep
}

/** Codes to be kept on paper, for when the app is lost: each works once. 50 bits each. */
export function newRecoveryCodes(): { codes: string[]; hashes: string[] } {
  const letters = 'ABCDEFGHJKMNPQRSTVWXYZ0123456789'
  const codes = Array.from({ length: RECOVERY_CODES }, () => {
    const text = Array.from(randomBytes(10), byte => letters[byte % letters.length]).join('')
    return `${text.slice(0, 5)}-${text.slice(5)}`
  })
  return { codes, hashes: codes.map(hashOf) }
}

/** The recovery codes that are left once one is used; undefined where it is none of them. */
export function withoutRecoveryCode(hashes: string[], code: string): string[] | undefined {
  const used = hashOf(code)
  return hashes.includes(used) ? hashes.filter(hash => hash !== used) : undefined
}
