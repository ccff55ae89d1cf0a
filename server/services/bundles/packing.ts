import { crc32 } from 'node:zlib'
import { splitExtension } from '../../../core/files/fileName'
import type { FileItem } from '../../../core/files/fileItem'
import { ZipLayout, type ZipMember } from '../../../core/zip/layout'
import { distinctPaths } from '../../../core/zip/safePaths'
import { fingerprintOf } from './zipMembers'

/** A zip as it would be sent now. */
export interface LaidOut {
  layout: ZipLayout
  fileName: string
  /** the same for the same contents, another for others */
  fingerprint: string
  /** when its contents last changed, where that is kept */
  changed?: Date
  /** of a bundle: the gates its contents stand behind */
  gates?: readonly string[]
  /** of a bundle: identities of the files in it */
  members?: readonly string[]
}

/** The date of texts that are written as a zip is laid out: the first a zip can have (PKWARE APPNOTE, 4.4.6). */
const TEXT_DATE = new Date('1980-01-01T00:00:00Z')

/** Lays out zips of the library's files as they are now; of a bundle among them all that is in it, in a folder of its name. */
export function createPacking(bundleLayout: (id: string) => Promise<LaidOut>) {
  async function membersOf(item: FileItem, folder: string): Promise<ZipMember[]> {
    if (!item.bundle)
      return [
        {
          name: folder + item.fileName,
          size: item.size,
          crc32: Number.parseInt(item.crc32, 16),
          modified: new Date(item.changed),
          source: item.sha256,
        },
      ]
    const { layout, fileName } = await bundleLayout(item.id)
    return layout.members.map(member => ({ ...member, name: `${folder}${splitExtension(fileName)[0]}/${member.name}` }))
  }

  /**
   * @param placed files with the folders of the zip they go into, such as `Sheets/`; names that meet are told apart
   * @param texts that go with them
   */
  return async function pack(
    placed: { item: FileItem; folder: string }[],
    fileName: string,
    texts: { name: string; body: string }[] = [],
  ): Promise<LaidOut> {
    const found: ZipMember[] = texts.map(({ name, body }) => {
      const source = Buffer.from(body)
      // One date for the same text: the same choice is the same zip.
      return { name, size: source.length, crc32: crc32(source), modified: TEXT_DATE, source }
    })
    for (const { item, folder } of placed) found.push(...(await membersOf(item, folder)))
    const paths = distinctPaths(found.map(member => member.name))
    const members = found.map((member, index) => ({ ...member, name: paths[index]! }))
    return { layout: new ZipLayout(members), fileName, fingerprint: fingerprintOf(members) }
  }
}
export type Pack = ReturnType<typeof createPacking>
