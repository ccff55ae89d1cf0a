import { defineEventHandler } from 'h3'
import { secondFactorSchema } from '../../../../core/account/accountForms'
import { SECRET, parseBody } from '../../../utils/request'
import { attemptOf, changedFrom, mustBeSignedIn } from '../../../utils/session'
import { useTrough } from '../../../utils/trough'

/** From now on a one-time code is asked for, too. */
export default defineEventHandler(async event => {
  const {
    account: { id, email },
  } = await mustBeSignedIn(event)
  const { account, journal, people } = await useTrough()
  const succeeded = await account.begin(await attemptOf(event))
  const recoveryCodes = await account.beginSecondFactor(id, await parseBody(event, secondFactorSchema, { most: SECRET }))
  await succeeded()
  journal.note('second-factor-begun', { who: email })
  await people.tellOfChange(email, 'secondFactorBegun', await changedFrom(event))
  return { recoveryCodes }
})
