import { defineEventHandler } from 'h3'
import { mustBeSignedIn } from '../../../utils/session'
import { useTrough } from '../../../utils/trough'

/** Where one is signed in. */
export default defineEventHandler(async event => {
  const { id, account } = await mustBeSignedIn(event)
  return { items: await (await useTrough()).sessions.list(account.id, id) }
})
