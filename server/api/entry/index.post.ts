import { defineEventHandler } from 'h3'
import { entrySchema } from '../../../core/people/person'
import { SECRET, parseBody } from '../../utils/request'
import { attemptOf, changedFrom, signIn } from '../../utils/session'
import { useTrough } from '../../utils/trough'

/** Chooses a password by the link of a message, and signs in where nothing more is asked. */
export default defineEventHandler(async event => {
  const { account: service, people, journal, visitors } = await useTrough()
  const succeeded = await service.begin(await attemptOf(event))
  const { account, kind, signsIn } = await people.enter(await parseBody(event, entrySchema, { most: SECRET }))
  await succeeded()
  journal.note(kind === 'invitation' ? 'joined' : 'password-renewed', { who: account.email, place: visitors.addressOf(event.node.req) })
  if (kind === 'password') await people.tellOfChange(account.email, 'password', await changedFrom(event))
  if (signsIn) await signIn(event, account)
  return { account: signsIn ? account : null }
})
