import { ownAddress, readEnvironment } from '../environment'
import { openTrough, type Trough } from '../trough'

let opening: Promise<Trough> | undefined

/** The services of this process, on the data folder the environment names; opened with the first call. */
export function useTrough(): Promise<Trough> {
  opening ??= (async () => openTrough({ ...readEnvironment(process.env), ownAddress: ownAddress(process.env) }))()
  return opening
}
