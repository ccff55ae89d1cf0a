import { dictionary } from '@zxcvbn-ts/language-common'
import { Problem } from '../../../core/problem'

const COMMON = new Set(dictionary.passwords as string[])

/**
 * Refuses passwords that everybody tries first (NIST SP 800-63B, section 3.1.1.2), and those that are no more than the e-mail.
 *
 * @throws Problem 422
 */
export function refuseCommon(password: string, email: string): void {
  const small = password.toLowerCase()
  // "password123456" and "passwordpassword" are as common as what they are made of.
  const stem = small.replace(/[\d\W_]+$/, '')
  const repeated = /^(.+?)\1+$/.exec(small)?.[1]
  const guessed = [small, ...(stem.length >= 4 && small.length - stem.length <= 6 ? [stem] : []), ...(repeated ? [repeated] : [])]
  if (guessed.some(word => COMMON.has(word) || new Set(word).size === 1) || small === email || small === email.split('@')[0]) {
    throw new Problem(
      422,
      'That password is among the first that are guessed.',
      'Choose another: a few words that do not belong together are good.',
      { field: 'password' },
    )
  }
}
