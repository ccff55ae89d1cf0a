import type { BundleEntry } from '../core/bundle/bundleEntry'
import { newId } from '../core/id'
import type { Trough } from '../server/trough'
import type { FileIds } from './fileIds'

const README = `Test tiles of Marlpit Pottery Supply

Six glazes on white stoneware, fired in the yard's own kiln at cone 9.
The names of the pictures are the names of the glazes.
Colours on a screen are never those of the tile: come and see them.
`
const LICENCE = `© 2026 Marlpit Pottery Supply

You may print and copy these files for your own use and for teaching.
Please ask us before you sell them or put them on another site.
`

const written = (name: string, body: string): BundleEntry => ({ id: newId(), kind: 'text', within: '', name, body })

/** Bundles of what is in some folders; noted among the files by the names they are saved under. */
export async function makeBundles({ bundles }: Trough, ids: FileIds, folders: Map<string, string>): Promise<void> {
  const make = async (title: string, folder: string, texts: BundleEntry[]) => {
    const id = folders.get(folder)!
    const bundle = await bundles.create({ title, folder: id, files: [], folders: [id] })
    const { entries, revision } = await bundles.details(bundle.id)
    await bundles.change(bundle.id, { revision, entries: [...texts, ...entries] })
    ids.set(bundle.fileName, bundle.id)
  }
  await make('Test tile picture pack', 'Studio photos', [written('READ ME.txt', README), written('LICENCE.txt', LICENCE)])
  await make('All safety data sheets', 'Safety data sheets', [])
}
