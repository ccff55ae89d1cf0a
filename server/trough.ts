import { openDelivering } from './opening/delivering'
import { openGround, type Ground } from './opening/ground'
import { openHoldings } from './opening/holdings'
import { openIntake } from './opening/intake'
import { openOwner } from './opening/owner'
import { openUpkeep } from './opening/upkeep'
import type { FrontOptions } from './services/delivery/front'
import { createTraffic } from './services/traffic'

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

/** Puts the services together; the one place that knows them all. The ground stays whoever's it was. */
export async function openServices(ground: Ground, { siteAddress = '', front, proxies = [], now, ownAddress }: Omit<Options, 'data'> = {}) {
  const started = new Date()
  const traffic = createTraffic()
  const owner = openOwner(ground)
  const holdings = openHoldings(ground, { traffic, siteAddress, now })
  const intake = openIntake(ground, holdings, owner)
  const delivering = await openDelivering(ground, holdings, owner, { front, proxies })
  const upkeep = openUpkeep(ground, { owner, holdings, intake, delivering }, { traffic, ownAddress })

  return {
    folder: ground.folder, secrets: ground.secrets, traffic,
    ...owner, ...holdings, ...intake, ...delivering, ...upkeep,

    /** Takes up what an earlier process left undone. */
    async resume(): Promise<void> {
      holdings.reading.start()
      await holdings.pages.readUsesAnew()
      await intake.uploads.recover(started)
      await holdings.timetable.run()
      await holdings.library.setStraysAside()
      await upkeep.tidy()
      await holdings.bundles.settled()
      await holdings.library.warm()
      await intake.oldAddresses.warm()
    },

    /** For what looks after the database itself. */
    database: ground.connection.db,

    /** Bytes that can still be written. */
    free: ground.store.free,

    /** Throws where database or store do not answer. */
    async check(): Promise<void> {
      await owner.account.isSetUp()
      await ground.store.free()
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
export async function openTrough({ data, ...options }: Options) {
  const ground = await openGround(data)
  try {
    const services = await openServices(ground, options)
    return {
      ...services,
      ground,
      async close(): Promise<void> {
        await services.close()
        await ground.close()
      },
    }
  }
  catch (error) {
    await ground.close()
    throw error
  }
}
export type Trough = Awaited<ReturnType<typeof openTrough>>
