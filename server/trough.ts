import { chmod, mkdir } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import { fileFilterSchema } from '../core/files/query'
import { openDatabase } from './db/connection'
import { lockFolder } from './db/lock'
import { loadSecrets } from './secrets'
import { createAccountService } from './services/account/account'
import { createHasher } from './services/account/hasher'
import { createJournal } from './services/account/journal'
import { createSessions } from './services/account/sessions'
import { createBagExport } from './services/bags/export'
import { createBagImport } from './services/bags/import'
import { createBundles } from './services/bundles/bundles'
import { createPacking } from './services/bundles/packing'
import { createDeliveryChecks } from './services/delivery/checks'
import { createDeliveryService } from './services/delivery/delivery'
import { createDirectory } from './services/delivery/directory'
import { createFront, type FrontOptions } from './services/delivery/front'
import { createEditions } from './services/editions/editions'
import { createEvents, passOn } from './services/events'
import { createFetching } from './services/jobs/fetching'
import { createJobs } from './services/jobs/jobs'
import { createUnpacking } from './services/jobs/unpack'
import { createReplacing } from './services/replacing/replacing'
import { createLibraryService } from './services/library/library'
import { createZipping } from './services/library/zipping'
import { createLookService } from './services/looks/looks'
import { createOldAddresses } from './services/oldAddresses/oldAddresses'
import { createPageService } from './services/pages/pages'
import { createRecognising } from './services/recognising/recognising'
import { createPlaces } from './services/pages/places'
import { createPublishedPages } from './services/published/published'
import { createPictures } from './services/pictures/pictures'
import { createLooking } from './services/reading/looking'
import { createReadingService } from './services/reading/reading'
import { createTextService } from './services/reading/texts'
import { createShelves } from './services/shelves/shelves'
import { createSignposts } from './services/signposts/signposts'
import { createSiteIcon } from './services/site/icon'
import { createSharedPictures } from './services/site/sharedPictures'
import { createSiteService } from './services/site/site'
import { createTallyService } from './services/tally/tally'
import { createTimetable } from './services/timetable/timetable'
import { createTraffic } from './services/traffic'
import { createVisitors } from './services/visitors'
import { createBackupReader, createBackups } from './services/trust/backup'
import { createCleaner } from './services/trust/cleaner'
import { createHashing } from './services/trust/hashing'
import { createStorage } from './services/trust/storage'
import { isClockPlausible } from './services/trust/clock'
import { createTroubles } from './services/trust/troubles'
import { createVerifying } from './services/trust/verify'
import { createGathering } from './services/walk/gathering'
import { createMeasuring } from './services/lettering/measuring'
import { createMending } from './services/walk/mending'
import { createOutside } from './services/walk/outside'
import { createWalkVisitor } from './services/walk/visitor'
import { createWalk } from './services/walk/walk'
import { createMetrics } from './services/watch/metrics'
import { IncomingStore } from './services/uploads/incoming'
import { createUploadService } from './services/uploads/uploads'
import { localStore } from './store/local'
import { createReserve } from './store/reserve'
import { isThere } from './store/safely'
import { laterTrouble, log } from './log'

const HOUR = 60 * 60 * 1000
const DAY = 24 * HOUR

export interface Options {
  /** the data folder; created if missing */
  data: string
  /** the public address of the site, where the environment gives one */
  siteAddress?: string
  /** a front server that sends stored bytes itself */
  front?: FrontOptions
  /** addresses of front servers, whose word on where visitors come from is taken */
  proxies?: string[]
  /** the clock that set times are held against, in milliseconds since the epoch */
  now?: () => number
  /** where this process answers visitors, for its own walk; none where it does not */
  ownAddress?: string
}

/**
 * Opens a data folder and puts the services together; the one place that knows them all.
 *
 * @throws Error with a message for the console where the folder is in use
 */
export async function openTrough({ data, siteAddress = '', front: frontOptions, proxies = [], now, ownAddress }: Options) {
  const started = new Date()
  const began = performance.now()
  const folder = resolve(data)
  const [storeFolder, incomingFolder] = [join(folder, 'store'), join(folder, 'incoming')]
  await mkdir(folder, { recursive: true, mode: 0o700 })
  // Whatever made it, and whatever the files in it are allowed: nobody else of this machine reaches them.
  await chmod(folder, 0o700)
  const reserve = createReserve(folder)
  await reserve.release()
  const lock = await lockFolder(folder)
  try {
    await mkdir(storeFolder, { recursive: true })
    await mkdir(incomingFolder, { recursive: true })
    const databaseFolder = join(folder, 'db')
    const secrets = await loadSecrets(folder, !await isThere(databaseFolder))
    const events = createEvents()
    const connection = await openDatabase(databaseFolder, touched => passOn(events, touched))
    await lock.holdDatabase()
    const { db, close: closeDatabase } = connection
    const store = localStore(storeFolder)

    const visitors = createVisitors(new Set(proxies))
    const hasher = createHasher()
    const troubles = createTroubles(db)
    const account = createAccountService(db, hasher)
    const sessions = createSessions(db, events)
    const journal = createJournal(db)
    const site = createSiteService(db, events, siteAddress)
    const pages = createPageService(db)
    const signposts = createSignposts(db, pages)
    const recognising = createRecognising(db, pages, signposts, site)
    const timetable = createTimetable(db, signposts, site, now)
    const looks = createLookService(db, pages)
    const texts = createTextService(db)
    const library = createLibraryService(db, store, pages, texts, events)
    const incoming = new IncomingStore(incomingFolder, store.free)
    const uploads = createUploadService(incoming, library, journal)
    const editions = createEditions(db, library, texts)
    const derivedFolder = join(folder, 'derived')
    const traffic = createTraffic()
    const reading = createReadingService(db, store, derivedFolder, texts, events, traffic)
    const looking = createLooking(store, derivedFolder)
    const pictures = createPictures(db, looking, reading, events)
    const icon = createSiteIcon(db, events, site, looks, pictures)
    const sharedPictures = createSharedPictures(site, looks)
    const jobs = createJobs()
    const unpacking = createUnpacking(library, store, jobs, incoming.partOf)
    const fetching = createFetching(db, library, store, jobs, incoming.partOf)
    const bundles = createBundles(db, events)
    const pack = createPacking(bundles.laidOut)
    const zipping = createZipping(db, pack)
    const shelves = createShelves(pages, library, pack)
    const bagExport = createBagExport(db, site)
    const bagImport = createBagImport(db, library, store, jobs, incoming.partOf, bundles.settled)
    const tally = createTallyService(db, secrets.visitors)
    const directory = createDirectory(db, events)
    const front = frontOptions && createFront(frontOptions, store)
    await front?.open()
    // Of its own: who waits for a download does not wait for everything to be verified.
    const deliveryHashing = createHashing()
    const checks = createDeliveryChecks(db, store, deliveryHashing, events)
    const delivery = createDeliveryService(directory, bundles, store, checks, tally, { front, visitors, isOwn: request => sessions.isSignedIn(request.headers.cookie), events, troubles })
    const places = createPlaces(db, events)
    const published = createPublishedPages(pages, library, shelves, signposts, looks, site, events)

    const replacing = createReplacing(db, pages, signposts)
    const oldAddresses = createOldAddresses({ db, events, library, pages, signposts, recognising, site })

    const outside = createOutside(db, fetching.hosts, events)
    const gathering = createGathering(db, library, pages, signposts, looks, recognising, createMeasuring(), outside)
    const walk = createWalk({ db, pages, gathering, outside, visitor: ownAddress === undefined ? undefined : createWalkVisitor(ownAddress), traffic, events })
    const mending = createMending(walk, pages, library)

    const hashing = createHashing()
    const backups = createBackups(connection, folder, store, hashing, library)
    const verifying = createVerifying(connection, databaseFolder, store, hashing, library, createBackupReader(hashing), troubles)
    const cleaner = createCleaner(db, store, library)
    const storageUse = createStorage(db, store)

    const metrics = createMetrics({
      reading: async () => (await reading.progress()).waiting,
      jobs: () => jobs.list().filter(job => job.state === 'running').length,
      storage: storageUse,
      files: async () => (await library.ids(fileFilterSchema.parse({}))).length,
    })

    let clockPlausible: Promise<boolean> | undefined
    async function tidy(): Promise<void> {
      await reserve.keep()
      // What is old by a clock that was set wrong is not old.
      // Asked once, before much is written by this clock: what is done from then on would make it plausible.
      if (!await (clockPlausible ??= isClockPlausible(db, Date.now())) && performance.now() - began < DAY) {
        log.warn('the clock is far ahead of what was done here last: nothing is cleaned away until it has gone on for a day')
        return
      }
      await uploads.dropExpired()
      await cleaner.clean()
      await sessions.tidy()
      await journal.tidy()
    }
    const tidying = setInterval(() => {
      tidy().catch(laterTrouble('tidying up failed'))
      walk.runWhenDue().catch(laterTrouble('the walk of the day failed'))
    }, HOUR)
    tidying.unref()

    return {
      folder, secrets, visitors, account, sessions, journal, site, icon, sharedPictures, pages, places, signposts, replacing, timetable, oldAddresses, recognising, looks, pictures, library, editions, uploads, reading, looking, jobs, unpacking, fetching, bundles, zipping, shelves, bagExport, bagImport, tally, traffic, checks, delivery, published, walk, outside, mending, backups, verifying, cleaner, storageUse, metrics,

      /** Takes up what an earlier process left undone. */
      async resume(): Promise<void> {
        reading.start()
        await pages.readUsesAnew()
        await uploads.recover(started)
        await timetable.run()
        await library.setStraysAside()
        await tidy()
        await bundles.settled()
        await library.warm()
        await oldAddresses.warm()
      },

      /** For what looks after the database itself. */
      database: db,

      /** Bytes that can still be written. */
      free: store.free,

      /** Throws where database or store do not answer. */
      async check(): Promise<void> {
        await account.isSetUp()
        await store.free()
      },

      async close(): Promise<void> {
        clearInterval(tidying)
        await timetable.close()
        await oldAddresses.close()
        front?.close()
        await walk.close()
        await jobs.close()
        await reading.close()
        await looking.close()
        await editions.close()
        await verifying.stop()
        await hashing.close()
        await hasher.close()
        await deliveryHashing.close()
        await tally.flush()
        await sharedPictures.close()
        await bundles.close()
        await closeDatabase()
        await lock.release()
      },
    }
  }
  catch (error) {
    await lock.release()
    throw error
  }
}
export type Trough = Awaited<ReturnType<typeof openTrough>>
