import { defineEventHandler } from 'h3'
import { confirmPasswordSchema } from '../../../../core/account/accountForms'
import { SECRET, parseBody } from '../../../utils/request'
import { attemptOf, changedFrom, mustBeSignedIn } from '../../../utils/session'
import { useTrough } from '../../../utils/trough'

/** No code is asked for any more. */
export default defineEventHandler(async event => {
  const {
    account: { id, email },
  } = await mustBeSignedIn(event)
  const { account, journal, people } = await useTrough()
  const succeeded = await account.begin(await attemptOf(event))
  await account.endSecondFactor(id, (await parseBody(event, confirmPasswordSchema, { most: SECRET })).password)
  await succeeded()
  journal.note('second-factor-ended', { who: email })
  await people.tellOfChange(email, 'secondFactorEnded', await changedFrom(event))
  return {}
})
