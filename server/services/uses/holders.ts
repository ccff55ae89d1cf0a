import type { BundleUse } from '../../../core/bundle/retarget'
import type { FileItem, Use } from '../../../core/files/fileItem'
import type { Queryable } from '../../db/connection'

/** Files and folders of the library that something leans on, by their identities. */
export interface LeanedOn {
  files: string[]
  folders: string[]
}
/** The places that lean on them. */
export interface Places {
  uses: Use[]
  bundles: BundleUse[]
}
/**
 * Takes back, in the caller's transaction, that another file took the place, or that it was let go.
 *
 * @throws Problem 409 where a place was changed since
 */
export type TakeBack = (tx: Queryable) => Promise<void>

/** A domain whose things lean on files and folders of the library: whoever deletes or replaces those knows no more of it than this. */
export interface Holder {
  places: (q: Queryable, on: LeanedOn) => Promise<Partial<Places>>
  /**
   * Leads what leans on files to another one, or lets go of them where there is none; of folders it lets go. In the
   * caller's transaction.
   *
   * @throws Problem 422 where the other one cannot stand there
   */
  lead: (tx: Queryable, on: LeanedOn, instead: FileItem | undefined) => Promise<TakeBack>
}

/** All that leans on files and folders, whatever it is. */
export function createHolders(holders: Holder[]) {
  return {
    async places(q: Queryable, on: LeanedOn): Promise<Places> {
      const found: Places = { uses: [], bundles: [] }
      for (const holder of holders) {
        const { uses = [], bundles = [] } = await holder.places(q, on)
        found.uses.push(...uses)
        found.bundles.push(...bundles)
      }
      return found
    },

    async lead(tx: Queryable, on: LeanedOn, instead: FileItem | undefined): Promise<TakeBack> {
      const back: TakeBack[] = []
      for (const holder of holders) back.push(await holder.lead(tx, on, instead))
      return async later => {
        // The last first: one may have changed what another had changed before.
        for (const takeBack of back.toReversed()) await takeBack(later)
      }
    },
  }
}
export type Holders = ReturnType<typeof createHolders>
