import { defineEventHandler } from 'h3'
import { lostPasswordSchema } from '../../../core/people/person'
import { SECRET, parseBody } from '../../utils/request'
import { attemptOf } from '../../utils/session'
import { useTrough } from '../../utils/trough'

/** Sends a link to choose another password by; the answer is the same whether there is such an account. */
export default defineEventHandler(async event => {
  const { account, people, journal } = await useTrough()
  const attempt = await attemptOf(event)
  await account.begin(attempt)
  const { email } = await parseBody(event, lostPasswordSchema, { most: SECRET })
  await people.lostPassword(email)
  journal.note('password-lost', { who: email, place: attempt.place })
  return {}
})
