import { defineEventHandler, getRequestURL } from 'h3'
import { invitationSchema } from '../../../../core/people/person'
import { parseBody } from '../../../utils/request'
import { mustBeSignedIn } from '../../../utils/session'
import { useTrough } from '../../../utils/trough'

/** Asks somebody to help. */
export default defineEventHandler(async event => {
  const { account } = await mustBeSignedIn(event)
  return (await useTrough()).people.invite(await parseBody(event, invitationSchema), account.email, getRequestURL(event).origin)
})
