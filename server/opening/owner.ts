import { createAccountService } from '../services/account/account'
import { createHasher } from '../services/account/hasher'
import { createJournal } from '../services/account/journal'
import { createSessions } from '../services/account/sessions'
import { createNews } from '../services/news'
import { createAccess } from '../services/rights/access'
import type { DataFolder } from './dataFolder'

/** Who works at the desk, what they did, and what they are told of it. */
export function openOwner({ connection: { db }, events }: DataFolder) {
  const hasher = createHasher()
  const news = createNews(events)
  return {
    hasher,
    account: createAccountService(db, hasher),
    sessions: createSessions(db, events),
    journal: createJournal(db),
    access: createAccess(db, events),
    news,
    closeOwner(): Promise<void> {
      news.close()
      return hasher.close()
    },
  }
}
export type Owner = ReturnType<typeof openOwner>
