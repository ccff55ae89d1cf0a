import { defineEventHandler } from 'h3'
import { accountOf, signOut } from '../utils/session'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async event => {
  const account = await accountOf(event)
  await signOut(event)
  if (account) (await useTrough()).journal.note('signed-out', { who: account.email })
  return { account: null }
})
