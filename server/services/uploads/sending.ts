import { AsyncLocalStorage } from 'node:async_hooks'
import type { Access } from '../rights/access'
import type { ChunkChecksum } from './checksum'

/** What the head of a request of the protocol says, for what takes in its body. */
export interface Sending {
  /** e-mail of who sends it */
  by: string
  /** what they may do */
  access: Pick<Access, 'mustPlace' | 'mustFiles'>
  /** Upload-Concat, where it is sent */
  concat?: string
  /** what the body has to match, where the sender says so */
  checksum?: ChunkChecksum
}

const storage = new AsyncLocalStorage<Sending>()
let running = 0

/** What is known of the request that is being handled; undefined outside {@link whileSending}. */
export const sending = (): Sending | undefined => storage.getStore()

/** Handles a request; whatever is done meanwhile on its behalf can ask for {@link sending}. */
export async function whileSending(known: Sending, handle: () => Promise<unknown>): Promise<void> {
  running++
  try {
    await storage.run(known, handle)
  } finally {
    // While it is in use Node.js 20 keeps track of every promise of the process, which would cost each visitor a sixth.
    if (!--running) storage.disable()
  }
}
