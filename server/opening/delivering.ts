import { createDeliveryChecks } from '../services/delivery/checks'
import { createDeliveryService } from '../services/delivery/delivery'
import { createDirectory } from '../services/delivery/directory'
import { createFront, type FrontOptions } from '../services/delivery/front'
import { createKnownSlugs } from '../services/pages/knownSlugs'
import { createPublishedPages } from '../services/published/published'
import { createSearching } from '../services/searching/searching'
import { createSeeing } from '../services/seeing/seeing'
import { createBringing } from '../services/downloads/bringing'
import { createEntryTaken } from '../services/catalogues/taken'
import { createDownloads } from '../services/downloads/downloads'
import { createSummaries } from '../services/downloads/summaries'
import { createDailyTally } from '../services/tally/daily'
import { createDescribing } from '../services/tally/describing'
import { createOccasions } from '../services/tally/occasions'
import { createTallyService } from '../services/tally/tally'
import { createTelling } from '../services/tally/telling'
import { createWho } from '../services/tally/who'
import { createHashing } from '../services/trust/hashing'
import { createTroubles } from '../services/trust/troubles'
import { createEntering } from '../services/entering/entering'
import { createFormLimits } from '../services/entering/formLimits'
import { createLetterbox } from '../services/letterbox/letterbox'
import { createLiveLetterboxes } from '../services/letterbox/live'
import { createRoom } from '../services/letterbox/room'
import { createLetters } from '../services/entering/letters'
import { createPersonalLinks } from '../services/entering/personalLinks'
import { createOutbox } from '../services/outbox/outbox'
import { createMailSettings } from '../services/outbox/settings'
import { smtpTransport } from '../services/outbox/transport'
import { createPeople } from '../services/people/people'
import { partIn } from '../services/uploads/incoming'
import type { Visitors } from '../services/visitorAddress'
import type { DataFolder } from './dataFolder'
import type { Holdings } from './holdings'
import type { Owner } from './owner'

interface DeliveringOptions {
  /** a front server that sends stored bytes itself */
  front?: FrontOptions
  visitors: Visitors
  /** the mail service that the environment gives; empty for none */
  smtp: string
}

/** What visitors get, and what is counted of it. */
export async function openDelivering(
  { connection: { db }, store, secrets, events, incomingFolder }: DataFolder,
  holdings: Holdings,
  { sessions, hasher }: Pick<Owner, 'sessions' | 'hasher'>,
  { front: frontOptions, visitors, smtp }: DeliveringOptions,
) {
  const { pages, library, shelves, shelfLooks, siteIcons, signposts, looks, site, bundles, looking, texts, findable, guard } = holdings
  const { standing, passes, passwords, contacts } = holdings
  const troubles = createTroubles(db)
  const describing = createDescribing()
  const who = createWho(secrets.visitors)
  const daily = createDailyTally(db, who, async () => ({ zone: (await site.get()).timeZone, hosts: await site.hosts() }))
  const tally = createTallyService(
    db,
    who,
    daily,
    createTelling(db, describing.describe, async () => {
      const { countries, keepAddresses } = await site.get()
      return { hosts: await site.hosts(), countries, addresses: keepAddresses > 0 }
    }),
  )
  const downloads = createDownloads(db, async () => (await site.get()).timeZone)
  const bringing = createBringing(
    db,
    async () => {
      const { timeZone, countries } = await site.get()
      return { zone: timeZone, countries, hosts: await site.hosts() }
    },
    id => partIn(incomingFolder, id),
  )
  const directory = createDirectory(db, events)
  const front = frontOptions && createFront(frontOptions, store)
  await front?.open()
  // Of its own: who waits for a download does not wait for everything to be verified.
  const hashing = createHashing()
  const checks = createDeliveryChecks(db, store, hashing, events)
  const published = createPublishedPages({
    pages,
    library,
    shelves,
    shelfLooks,
    siteIcons,
    signposts,
    looks,
    site,
    guard,
    contacts,
    entryIndex: holdings.entryIndex,
    filling: holdings.filling,
    feeds: holdings.feeds,
    events,
  })
  const mail = createMailSettings(db, smtp)
  const outbox = createOutbox(db, mail, smtpTransport, async () => {
    const { name, address } = await site.get()
    return { name, host: address ? new URL(address).hostname : 'localhost' }
  })
  const summaries = createSummaries({
    db,
    downloads,
    outbox,
    site: async () => {
      const { name, timeZone, address } = await site.get()
      return { name, zone: timeZone, address }
    },
  })
  const isOwn = (request: { headers: { cookie?: string } }) => sessions.isSignedIn(request.headers.cookie)

  const letters = createLetters(site, secrets.session)
  const formLimits = createFormLimits()
  const letterboxes = createLiveLetterboxes(pages, events)

  return {
    visitors,
    troubles,
    tally,
    daily,
    occasions: createOccasions(daily, visitors, isOwn),
    downloads,
    entryTaken: createEntryTaken(holdings.entryIndex, downloads.takenIn),
    bringing,
    summaries,
    checks,
    delivery: createDeliveryService({ directory, bundles, store, checks, tally, front, visitors, isOwn, events, troubles, guard }),
    outbox,
    entering: createEntering({
      db,
      secret: secrets.session,
      standing,
      passes,
      passwords,
      contacts,
      outbox,
      letters,
      limits: formLimits,
      published,
      library,
      pages,
      site,
    }),
    letterboxes,
    letterbox: createLetterbox({
      db,
      secret: secrets.session,
      library,
      letterboxes,
      published,
      site,
      contacts,
      outbox,
      letters,
      guard,
      limits: formLimits,
      arrivals: holdings.arrivals,
      room: createRoom(store),
      incoming: id => partIn(incomingFolder, id),
    }),
    people: createPeople({ db, hasher, site, outbox }),
    personalLinks: createPersonalLinks({ db, passes, library, outbox, letters, contacts, published, site }),
    knownSlugs: createKnownSlugs(db, events),
    published,
    searching: createSearching({ library, pages, site, published, findable, shelves, guard, events }),
    seeing: createSeeing({ directory, library, bundles, looking, texts, site, published, findable, guard, events }),

    async closeDelivering(): Promise<void> {
      front?.close()
      await bringing.close()
      await hashing.close()
      await outbox.close()
      await tally.flush()
      await daily.flush()
      await describing.close()
      await downloads.close()
    },
  }
}
export type Delivering = Awaited<ReturnType<typeof openDelivering>>
