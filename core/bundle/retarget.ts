import { z } from 'zod'
import type { BundleEntry } from './bundleEntry'

/** A bundle that holds a file or folder by itself, not as part of a folder it takes in whole. */
export const bundleUseSchema = z.object({
  bundleId: z.string(),
  bundleTitle: z.string(),
  fileId: z.string().nullable(),
  folderId: z.string().nullable(),
})
export type BundleUse = z.infer<typeof bundleUseSchema>

/** Entries where another file takes the place of those that go, once; without one they are left out. */
export function retargetEntries(entries: BundleEntry[], going: ReadonlySet<string>, instead?: string): BundleEntry[] {
  const there = new Set(entries.flatMap(entry => (entry.kind === 'file' && !going.has(entry.file) ? [entry.file] : [])))
  return entries.flatMap((entry): BundleEntry[] => {
    if (entry.kind === 'text' || entry.kind === 'field') return [entry]
    if (entry.kind === 'folder') return going.has(entry.folder) && instead === undefined ? [] : [entry]
    if (!going.has(entry.file)) return [entry]
    if (instead === undefined || there.has(instead)) return []
    there.add(instead)
    // The name it had was the other file's.
    return [{ ...entry, file: instead, name: null }]
  })
}
