import { defineEventHandler, setResponseStatus } from 'h3'
import { idOf } from '../../../utils/request'
import { mustBeSignedIn } from '../../../utils/session'
import { useTrough } from '../../../utils/trough'

/** Signs one out somewhere. */
export default defineEventHandler(async event => {
  const { account } = await mustBeSignedIn(event)
  const { sessions, journal } = await useTrough()
  await sessions.end(account.id, idOf(event))
  journal.note('session-ended', { who: account.email })
  setResponseStatus(event, 204)
  return null
})
