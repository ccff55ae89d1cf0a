import { defineEventHandler } from 'h3'
import { resetPasswordSchema } from '../../../core/account/accountForms'
import { Problem } from '../../../core/problem'
import { SECRET, parseBody } from '../../utils/request'
import { hasControl } from '../../utils/session'
import { useTrough } from '../../utils/trough'

/** Gives the owner another password: for the command on this machine alone. */
export default defineEventHandler(async event => {
  if (!(await hasControl(event))) throw new Problem(403, 'This is done on the machine itself.', 'Run "npm run trough password" there.')
  const { account, journal } = await useTrough()
  const { password, endSecondFactor } = await parseBody(event, resetPasswordSchema, { most: SECRET })
  const email = await account.resetPassword(password, endSecondFactor)
  journal.note('password-reset', { who: email })
  return { email }
})
