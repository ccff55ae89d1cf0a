import type { Database } from '../../db/connection'
import { createDrafts } from './drafts'
import { createLiveReads } from './liveReads'
import { createPageBin } from './pageBin'
import { createPublishing } from './publishing'
import { createRewriting } from './rewriting'

/** Pages: their drafts, and the live versions made from them. */
export function createPageService(db: Database) {
  const drafts = createDrafts(db)
  return { ...drafts, ...createPageBin(db), ...createPublishing(db, drafts.get), ...createRewriting(db), ...createLiveReads(db) }
}
export type PageService = ReturnType<typeof createPageService>
