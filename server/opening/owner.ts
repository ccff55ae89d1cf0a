import { createAccountService } from '../services/account/account'
import { createHasher } from '../services/account/hasher'
import { createJournal } from '../services/account/journal'
import { createSessions } from '../services/account/sessions'
import type { DataFolder } from './dataFolder'

/** Who works at the desk, and what they did. */
export function openOwner({ connection: { db }, events }: DataFolder) {
  const hasher = createHasher()
  return {
    account: createAccountService(db, hasher),
    sessions: createSessions(db, events),
    journal: createJournal(db),
    closeOwner: () => hasher.close(),
  }
}
export type Owner = ReturnType<typeof openOwner>
