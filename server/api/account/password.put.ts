import { defineEventHandler } from 'h3'
import { changePasswordSchema } from '../../../core/account/accountForms'
import { SECRET, parseBody } from '../../utils/request'
import { attemptOf, changedFrom, mustBeSignedIn } from '../../utils/session'
import { useTrough } from '../../utils/trough'

/** Changes one's password; whoever is signed in elsewhere is signed out. */
export default defineEventHandler(async event => {
  const { account, sessions, journal, people } = await useTrough()
  const {
    id,
    account: { id: own, email },
  } = await mustBeSignedIn(event)
  const succeeded = await account.begin(await attemptOf(event))
  const { old, password } = await parseBody(event, changePasswordSchema, { most: SECRET })
  await account.changePassword(own, old, password)
  await succeeded()
  await sessions.endOthers(own, id)
  journal.note('password-changed', { who: email })
  await people.tellOfChange(email, 'password', await changedFrom(event))
  return {}
})
