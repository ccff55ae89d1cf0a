import { openDelivering } from './opening/delivering'
import { openDataFolder, type Connect, type DataFolder } from './opening/dataFolder'
import { openHoldings } from './opening/holdings'
import { openIntake } from './opening/intake'
import { openOwner } from './opening/owner'
import { openUpkeep } from './opening/upkeep'
import type { FrontOptions } from './services/delivery/front'
import { findPrograms } from './services/reading/programs'
import { createVisitors } from './services/visitorAddress'
import { createTraffic } from './services/traffic'

export interface Options {
  /** the data folder; created if missing */
  data: string
  /** how its database is opened; PGlite in the folder where nothing is said */
  connect?: Connect
  /** the public address of the site, where the environment gives one */
  siteAddress?: string
  /** a front server that sends stored bytes itself */
  front?: FrontOptions
  /** addresses of front servers, whose word on where visitors come from is taken */
  proxies?: string[]
  /** the mail service that messages are sent by; the outbox keeps them where there is none */
  smtp?: string
  /** the clock that set times are held against, in milliseconds since the epoch */
  now?: () => number
  /** folders in which programs are looked for that read more; none where nothing is said */
  programs?: string[]
  /** where this process answers visitors, for its own walk; none where it does not */
  ownAddress?: string
}

/** Puts the services together; the one place that knows them all. The data folder stays open with whoever opened it. */
export async function openServices(
  dataFolder: DataFolder,
  { siteAddress = '', front, proxies = [], smtp = '', programs = [], now, ownAddress }: Omit<Options, 'data' | 'connect'> = {},
) {
  const started = new Date()
  const traffic = createTraffic()
  const found = await findPrograms(programs)
  const owner = openOwner(dataFolder)
  const visitors = createVisitors(new Set(proxies))
  const holdings = openHoldings(dataFolder, owner, { traffic, siteAddress, programs: found, visitors, now })
  const intake = openIntake(dataFolder, holdings, owner)
  const delivering = await openDelivering(dataFolder, holdings, owner, { front, visitors, smtp })
  const upkeep = openUpkeep(dataFolder, { owner, holdings, intake, delivering }, { traffic, ownAddress })

  return {
    folder: dataFolder.folder,
    secrets: dataFolder.secrets,
    traffic,
    programs: found,
    ...owner,
    ...holdings,
    ...intake,
    ...delivering,
    ...upkeep,

    /** Takes up what an earlier process left undone. */
    async resume(): Promise<void> {
      await holdings.reading.start()
      await holdings.pages.readUsesAnew()
      await intake.uploads.recover(started)
      await holdings.timetable.run()
      await delivering.outbox.start()
      intake.hookSending.start()
      await holdings.library.setStraysAside()
      await delivering.bringing.resume()
      await intake.importing.resume()
      await upkeep.tidy()
      await holdings.bundles.settled()
      await holdings.library.warm()
      await intake.oldAddresses.warm()
      holdings.folderFields.start()
    },

    /** For what looks after the database itself. */
    database: dataFolder.connection.db,

    /** Bytes that can still be written. */
    free: dataFolder.store.free,

    /** Throws where database or store do not answer. */
    async check(): Promise<void> {
      await owner.account.isSetUp()
      await dataFolder.store.free()
    },

    /** Ends the services: first what begins work by itself, last what others hand their work to. */
    async close(): Promise<void> {
      await upkeep.closeUpkeep()
      await intake.closeIntake()
      await holdings.closeHoldings()
      await owner.closeOwner()
      await delivering.closeDelivering()
    },
  }
}

export type Services = Awaited<ReturnType<typeof openServices>>

/**
 * Opens a data folder with all services.
 *
 * @throws Error with a message for the console where the folder is in use
 */
export async function openTrough({ data, connect, ...options }: Options) {
  const dataFolder = await openDataFolder(data, connect)
  try {
    const services = await openServices(dataFolder, options)
    return {
      ...services,
      dataFolder,
      async close(): Promise<void> {
        await services.close()
        await dataFolder.close()
      },
    }
  } catch (error) {
    await dataFolder.close()
    throw error
  }
}
export type Trough = Awaited<ReturnType<typeof openTrough>>
