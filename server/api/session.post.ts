import { defineEventHandler } from 'h3'
import { signInSchema } from '../../core/account/accountForms'
import { SECRET, parseBody } from '../utils/request'
import { attemptOf, signIn } from '../utils/session'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async event => {
  const { account: service, journal } = await useTrough()
  const attempt = await attemptOf(event)
  // Counted before a word of it is read.
  const succeeded = await service.begin(attempt)
  const input = await parseBody(event, signInSchema, { most: SECRET })
  const told = { who: input.email, place: attempt.place }
  const account = await service.signIn(input, attempt).catch((error: unknown) => {
    journal.note('sign-in-refused', told)
    throw error
  })
  await succeeded()
  await signIn(event, account)
  journal.note('signed-in', told)
  return { account }
})
