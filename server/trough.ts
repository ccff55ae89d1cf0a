import { mkdir } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import { openDatabase } from './db/connection'
import { lockFolder } from './db/lock'
import { loadSecrets } from './secrets'
import { createAccountService } from './services/account/account'
import { createDeliveryService } from './services/delivery/delivery'
import { createDirectory } from './services/delivery/directory'
import { createDeriveService } from './services/derive/derive'
import { createEvents } from './services/events'
import { createLibraryService } from './services/library/library'
import { createPageService } from './services/pages/pages'
import { createPublishedPages } from './services/pages/published'
import { createSiteService } from './services/site/site'
import { createTallyService } from './services/tally/tally'
import { IncomingStore } from './services/uploads/incoming'
import { createUploadService } from './services/uploads/uploads'
import { localStore } from './store/local'

const HOUR = 60 * 60 * 1000

export interface Options {
  /** the data folder; created if missing */
  data: string
  /** the public address of the site, where the environment gives one */
  siteAddress?: string
}

/**
 * Opens a data folder and puts the services together; the one place that knows them all.
 *
 * @throws Error with a message for the console where the folder is in use
 */
export async function openTrough({ data, siteAddress = '' }: Options) {
  const started = new Date()
  const folder = resolve(data)
  const [storeFolder, incomingFolder] = [join(folder, 'store'), join(folder, 'incoming')]
  await mkdir(storeFolder, { recursive: true })
  await mkdir(incomingFolder, { recursive: true })
  const unlock = await lockFolder(folder)
  try {
    const secrets = await loadSecrets(folder)
    const { db, close: closeDatabase } = await openDatabase(join(folder, 'db'))
    const events = createEvents()
    const store = localStore(storeFolder)

    const account = createAccountService(db)
    const site = createSiteService(db, events, siteAddress)
    const pages = createPageService(db, events)
    const library = createLibraryService(db, store, pages, events)
    const uploads = createUploadService(new IncomingStore(incomingFolder, store.free), library)
    const derived = createDeriveService(db, store, join(folder, 'derived'), events)
    const tally = createTallyService(db, secrets.visitors)
    const directory = createDirectory(db, events)
    const delivery = createDeliveryService(directory, store, tally)
    const published = createPublishedPages(pages, library, site, events)

    async function tidy(): Promise<void> {
      await uploads.dropExpired()
      await library.emptyOldBin()
      await library.collectBytes()
    }
    const tidying = setInterval(() => tidy().catch(error => console.error('Tidying up failed:', error)), HOUR)
    tidying.unref()

    return {
      secrets, account, site, pages, library, uploads, derived, tally, delivery, published,

      /** Takes up what an earlier process left undone. */
      async resume(): Promise<void> {
        derived.start()
        await uploads.recover(started)
        await tidy()
      },

      /** Throws where database or store do not answer. */
      async check(): Promise<void> {
        await account.isSetUp()
        await store.free()
      },

      async close(): Promise<void> {
        clearInterval(tidying)
        await derived.close()
        await tally.flush()
        await closeDatabase()
        await unlock()
      },
    }
  }
  catch (error) {
    await unlock()
    throw error
  }
}
export type Trough = Awaited<ReturnType<typeof openTrough>>
