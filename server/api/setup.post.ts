import { defineEventHandler } from 'h3'
import { setUpSchema } from '../services/account/account'
import { parseBody } from '../utils/request'
import { originOf, signIn } from '../utils/session'
import { useTrough } from '../utils/trough'

/** Makes the owner's account, the site's name and its first page. */
export default defineEventHandler(async (event) => {
  const input = await parseBody(event, setUpSchema)
  const { account: service, site, pages } = await useTrough()
  const account = await service.setUp(input, originOf(event))
  await site.set({ ...await site.get(), name: input.siteName })
  await pages.create({ title: 'Home' }, { home: true })
  await signIn(event, account)
  return { account }
})
