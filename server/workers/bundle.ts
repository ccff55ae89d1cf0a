import { parentPort } from 'node:worker_threads'
import { composeBundle, sizeOfMember, type BundledField, type BundledFile, type BundledFolder } from '../../core/bundle/compose'
import type { BundleDetails, BundleEntry } from '../../core/bundle/bundleEntry'
import { ZipLayout } from '../../core/zip/layout'
import { fingerprintOf, packMembers, unpackMembers } from '../services/bundles/zipMembers'
import { comeAfterVisitors } from './courtesy'

export interface BundleTask {
  entries: BundleEntry[]
  /** when it was put together, in milliseconds since the epoch */
  composed: number
  fields: BundledField[]
  folders: BundledFolder[]
  /** the files it brings, as JSON of the database */
  files: string
  /** how many members are told one by one */
  listed: number
}
export interface BundleMessage extends Pick<BundleDetails, 'members' | 'now' | 'total'> {
  /** all of them, for the zip */
  packed: string
  fingerprint: string
  /** bytes of the zip */
  size: number
}

/** Composes bundles away from everything else: thousands of files take a while. */
comeAfterVisitors()
parentPort!.on('message', ({ entries, composed, fields, folders, files, listed }: BundleTask) => {
  const { members, now } = composeBundle({ entries, fields, folders, files: JSON.parse(files) as BundledFile[] })
  const packed = packMembers(members, composed)
  const zipMembers = unpackMembers(packed)
  parentPort!.postMessage({
    now,
    total: members.length,
    members: members.slice(0, listed).map(member => ({ path: member.path, size: sizeOfMember(member) })),
    packed,
    fingerprint: fingerprintOf(zipMembers),
    size: new ZipLayout(zipMembers).size,
  } satisfies BundleMessage)
})
