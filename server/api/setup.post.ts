import { defineEventHandler } from 'h3'
import { setUpSchema } from '../../core/account/accountForms'
import { SECRET, parseBody } from '../utils/request'
import { attemptOf, signIn } from '../utils/session'
import { useTrough } from '../utils/trough'

/** Makes the owner's account, the site's name and its first page. */
export default defineEventHandler(async event => {
  const { account: service, journal, site, pages } = await useTrough()
  const succeeded = await service.begin(await attemptOf(event))
  const input = await parseBody(event, setUpSchema, { most: SECRET })
  const account = await service.setUp(input)
  await succeeded()
  await site.set({ ...(await site.get()), name: input.siteName })
  await pages.create({ title: 'Home' }, { home: true })
  await signIn(event, account)
  journal.note('set-up', { who: account.email })
  return { account }
})
