import { fileFilterSchema } from '../../core/files/query'
import { createMeasuring } from '../services/lettering/measuring'
import type { Traffic } from '../services/traffic'
import { createBackupReader, createBackups } from '../services/trust/backup'
import { createCleaner } from '../services/trust/cleaner'
import { createClock } from '../services/trust/clock'
import { createHashing } from '../services/trust/hashing'
import { createStorage } from '../services/trust/storage'
import { createVerifying } from '../services/trust/verify'
import { createGathering } from '../services/walk/gathering'
import { createMending } from '../services/walk/mending'
import { createOutside } from '../services/walk/outsideAnswers'
import { createWalkVisitor } from '../services/walk/visitor'
import { createWalk } from '../services/walk/walk'
import { createMetrics } from '../services/watch/metrics'
import { laterTrouble, log } from '../log'
import type { Delivering } from './delivering'
import type { DataFolder } from './dataFolder'
import type { Holdings } from './holdings'
import type { Intake } from './intake'
import type { Owner } from './owner'
import { wipeAddresses } from '../services/tally/persons'

const HOUR = 60 * 60 * 1000

interface UpkeepOptions {
  traffic: Traffic
  /** where this process answers visitors, for its own walk; none where it does not */
  ownAddress?: string
}

/** What looks after the rest: the walk, backups, verifying, cleaning, measurements. */
export function openUpkeep(
  { connection, databaseFolder, folder, store, reserve, events }: DataFolder,
  {
    owner: { sessions, journal },
    holdings: { library, pages, signposts, looks, site, recognising, reading, typefaces, guard, contacts, entries, fieldBin, filling },
    intake: { jobs, fetching, uploads, hooks, importing },
    delivering: { troubles, entering, people, daily, summaries },
  }: { owner: Owner; holdings: Holdings; intake: Intake; delivering: Delivering },
  { traffic, ownAddress }: UpkeepOptions,
) {
  const { db } = connection
  const outside = createOutside(db, fetching.hosts, events)
  const measuring = createMeasuring(typefaces.bytesOf)
  const gathering = createGathering({ db, library, pages, signposts, looks, site, recognising, measuring, outside, guard, filling })
  const walk = createWalk({
    db,
    pages,
    gathering,
    outside,
    visitor: ownAddress === undefined ? undefined : createWalkVisitor(ownAddress),
    traffic,
    events,
  })
  const hashing = createHashing()
  const verifying = createVerifying({ connection, databaseFolder, store, hashing, library, backups: createBackupReader(hashing), troubles })
  const cleaner = createCleaner(db, store, library, [pages.emptyOldBin, entries.clean, fieldBin.clean])
  const storageUse = createStorage(db, store)

  const clock = createClock(db)
  async function tidy(): Promise<void> {
    await reserve.keep()
    // What is old by a clock that was set wrong is not old.
    if (!(await clock.isPlausible())) {
      log.warn('the clock is far ahead of when it was believed last: nothing is cleaned away until it has gone on for a day')
      return
    }
    await uploads.dropExpired()
    await cleaner.clean()
    await sessions.tidy()
    await journal.tidy()
    await contacts.eraseOld()
    await entering.tidy()
    await people.tidy()
    await hooks.tidy()
    await importing.tidy()
    await daily.tidy()
    await wipeAddresses(db, (await site.get()).keepAddresses)
  }
  const tidying = setInterval(() => {
    tidy().catch(laterTrouble('tidying up failed'))
    summaries.runWhenDue().catch(laterTrouble('what was taken could not be told'))
    walk.runWhenDue().catch(laterTrouble('the walk of the day failed'))
  }, HOUR)
  tidying.unref()

  return {
    outside,
    walk,
    verifying,
    cleaner,
    storageUse,
    tidy,
    mending: createMending(walk, pages, library),
    backups: createBackups({ connection, folder, store, hashing, library, traffic }),
    metrics: createMetrics({
      reading: async () => (await reading.progress()).waiting,
      jobs: () => jobs.list().filter(job => job.state === 'running').length,
      storage: storageUse,
      files: async () => (await library.ids(fileFilterSchema.parse({}))).length,
    }),

    async closeUpkeep(): Promise<void> {
      clearInterval(tidying)
      await walk.close()
      await verifying.stop()
      await hashing.close()
    },
  }
}
