import { defineEventHandler, sendNoContent } from 'h3'
import { confirmPasswordSchema } from '../../../core/account/accountForms'
import { SECRET, parseBody } from '../../utils/request'
import { attemptOf, mustBeSignedIn, signOut } from '../../utils/session'
import { useTrough } from '../../utils/trough'

/** Leaves by oneself: what one did stays. */
export default defineEventHandler(async event => {
  const {
    account: { id, email },
  } = await mustBeSignedIn(event)
  const { account, people, journal } = await useTrough()
  const succeeded = await account.begin(await attemptOf(event))
  await people.leave(id, (await parseBody(event, confirmPasswordSchema, { most: SECRET })).password)
  await succeeded()
  await signOut(event)
  journal.note('left', { who: email })
  return sendNoContent(event)
})
