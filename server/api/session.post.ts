import { defineEventHandler } from 'h3'
import { signInSchema } from '../services/account/account'
import { parseBody } from '../utils/request'
import { originOf, signIn } from '../utils/session'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async (event) => {
  const input = await parseBody(event, signInSchema)
  const { account: service } = await useTrough()
  const account = await service.signIn(input, originOf(event))
  await signIn(event, account)
  return { account }
})
