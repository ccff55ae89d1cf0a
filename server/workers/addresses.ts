import { parentPort } from 'node:worker_threads'
import { readAddresses, type ReadList } from '../../core/oldAddresses/readAddressList'

export interface AddressesTask {
  text: string
  hosts: string[]
}
export type AddressesMessage = ReadList

/** Reads long lists of addresses away from everything else. */
parentPort!.on('message', ({ text, hosts }: AddressesTask) =>
  parentPort!.postMessage(readAddresses(text, hosts) satisfies AddressesMessage),
)
