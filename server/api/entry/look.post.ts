import { defineEventHandler } from 'h3'
import { entryLookSchema } from '../../../core/people/person'
import { SECRET, parseBody } from '../../utils/request'
import { attemptOf } from '../../utils/session'
import { useTrough } from '../../utils/trough'

/** Whom the link of a message lets in, and what for; it holds on. */
export default defineEventHandler(async event => {
  const { account, people } = await useTrough()
  const succeeded = await account.begin(await attemptOf(event))
  const known = await people.look((await parseBody(event, entryLookSchema, { most: SECRET })).token)
  await succeeded()
  return known
})
