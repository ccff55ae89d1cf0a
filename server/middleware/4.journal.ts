import { defineEventHandler } from 'h3'
import { actOf } from '../../core/journal/acts'
import { accountOf } from '../utils/session'
import { useTrough } from '../utils/trough'

/** Writes down who changed what, once it has been done. */
export default defineEventHandler(async event => {
  const path = event.path.split('?')[0]!
  const done = path.startsWith('/api/') ? actOf(event.method, path.slice('/api'.length)) : undefined
  if (!done) return
  const [{ journal, visitors }, account] = [await useTrough(), await accountOf(event)]
  const place = visitors.addressOf(event.node.req)
  event.node.res.once('finish', () => {
    if (event.node.res.statusCode < 400)
      journal.note(done.act, { who: account?.email ?? 'a command on this machine', about: done.about, place })
  })
})
