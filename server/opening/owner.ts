import { createAccountService } from '../services/account/account'
import { createHasher } from '../services/account/hasher'
import { createJournal } from '../services/account/journal'
import { createSessions } from '../services/account/sessions'
import type { Ground } from './ground'

/** Who works at the desk, and what they did. */
export function openOwner({ connection: { db }, events }: Ground) {
  const hasher = createHasher()
  return {
    account: createAccountService(db, hasher),
    sessions: createSessions(db, events),
    journal: createJournal(db),
    closeOwner: () => hasher.close(),
  }
}
export type Owner = ReturnType<typeof openOwner>
