import { createBagExport } from '../services/bags/export'
import { createBagImport } from '../services/bags/import'
import { createImporting } from '../services/catalogues/importing'
import { createHooks } from '../services/hooks/hooks'
import { createHookSending } from '../services/hooks/sending'
import { createFetching } from '../services/jobs/fetching'
import { createJobs } from '../services/jobs/jobs'
import { createUnpacking } from '../services/jobs/unpack'
import { createOldAddresses } from '../services/oldAddresses/oldAddresses'
import { IncomingStore } from '../services/uploads/incoming'
import { createUploadService } from '../services/uploads/uploads'
import type { DataFolder } from './dataFolder'
import type { Holdings } from './holdings'
import type { Owner } from './owner'

/** The ways in: uploads, archives, bags, other servers, the addresses of a site that moves; and the ways out: bags, other services. */
export function openIntake(
  { connection: { db }, store, incomingFolder, events }: DataFolder,
  { library, bundles, pages, signposts, recognising, site, catalogues }: Holdings,
  { journal, news }: Pick<Owner, 'journal' | 'news'>,
) {
  const arriving = new IncomingStore(incomingFolder, store.free)
  const jobs = createJobs(() => news.note('jobs'))
  const coming = { db, library, store, jobs, incoming: arriving.partOf }
  const oldAddresses = createOldAddresses({ db, events, library, pages, signposts, recognising, site })

  const fetching = createFetching(coming)
  // What may be fetched from may be told, too.
  const importing = createImporting(db, { catalogues, jobs, store, incoming: arriving.partOf })
  const hookSending = createHookSending(db, events, fetching.hosts)

  return {
    jobs,
    oldAddresses,
    uploads: createUploadService(arriving, library, journal),
    unpacking: createUnpacking(library, store, jobs, arriving.partOf),
    fetching,
    importing,
    bagExport: createBagExport(db, site),
    bagImport: createBagImport({ ...coming, bundlesSettled: bundles.settled }),

    hooks: createHooks(db),
    hookSending,

    async closeIntake(): Promise<void> {
      await hookSending.close()
      await oldAddresses.close()
      await jobs.close()
      await importing.close()
    },
  }
}
export type Intake = ReturnType<typeof openIntake>
