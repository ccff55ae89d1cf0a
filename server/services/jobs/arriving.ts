import type { Database } from '../../db/connection'
import type { Store } from '../../store/store'
import type { LibraryService } from '../library/library'
import type { Jobs } from './jobs'

/** What every job needs that brings files into the library. */
export interface Arriving {
  db: Database
  library: LibraryService
  store: Store
  jobs: Jobs
  /** where the bytes of what comes in lie meanwhile */
  incoming: (id: string) => string
}
