import { defineEventHandler } from 'h3'
import { mustBeSignedIn } from '../../../utils/session'
import { useTrough } from '../../../utils/trough'

/** Signs one out everywhere else. */
export default defineEventHandler(async event => {
  const { id, account } = await mustBeSignedIn(event)
  const { sessions, journal } = await useTrough()
  await sessions.endOthers(account.id, id)
  journal.note('session-ended', { who: account.email, about: 'all others' })
  return { items: await sessions.list(account.id, id) }
})
