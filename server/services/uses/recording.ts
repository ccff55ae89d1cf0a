import { and, eq, type SQL } from 'drizzle-orm'
import { outsideAddress } from '../../../core/page/outsideAddress'
import { placementsOf } from '../../../core/page/targets'
import type { PageDocument, Reference } from '../../../core/page/schema'
import type { UseKind } from '../../../core/files/fileItem'
import type { Queryable } from '../../db/connection'
import { insertMany } from '../../db/insertMany'
import { uses, type Side } from '../../db/schema'

/** Stands in the place of an address where a shelf asks all of the library: nothing of that can be missing. */
const LIBRARY = 'library:'

/** What is written down by words alone: things of the site that pages do not lose when files, folders and pages go. */
function addressOf(target: Reference | undefined): string | null {
  if (!target) return null
  switch (target.kind) {
    case 'library':
      return LIBRARY
    case 'entry':
      return entryAddress(target.id)
    case 'catalogue':
      return `catalogue:${target.id}`
    case 'field':
      return `field:${target.field}`
    default:
      return outsideAddress(target)
  }
}

/** The catalogue that is listed by what was written down so; undefined where it is something else. */
export const catalogueAt = (address: string | null): string | undefined => /^catalogue:(.+)$/.exec(address ?? '')?.[1]

/** What is written down where something leads to an entry. */
export const entryAddress = (id: string): string => `entry:${id}`
/** The entry that is led to by what was written down so; undefined where it is something else. */
export const entryAt = (address: string | null): string | undefined => /^entry:(.+)$/.exec(address ?? '')?.[1]

/** What is known of a target by its identity; one elsewhere has none. */
const columnsOf = (target: Reference | undefined) => ({
  fileId: target?.kind === 'file' ? target.id : null,
  folderId: target?.kind === 'folder' ? target.id : null,
  toPage: target?.kind === 'page' ? target.id : null,
  signpostId: target?.kind === 'signpost' ? target.id : null,
  address: addressOf(target),
})

/** The rows of `uses` that lead to a target, or lean on a folder. */
export function leadsTo(target: Reference): SQL {
  switch (target.kind) {
    case 'file':
      return eq(uses.fileId, target.id)
    case 'folder':
      return eq(uses.folderId, target.id)
    case 'signpost':
      return eq(uses.signpostId, target.id)
    case 'page':
      return eq(uses.toPage, target.id)
    default:
      return eq(uses.address, addressOf(target)!)
  }
}

type Part = { kind: UseKind } & ReturnType<typeof columnsOf>

/** Writes down where a page's document leads, in the transaction that writes the document. */
export async function recordUses(tx: Queryable, pageId: string, side: Side, document: PageDocument): Promise<void> {
  await tx.delete(uses).where(and(eq(uses.pageId, pageId), eq(uses.side, side)))
  const rows = placementsOf(document).flatMap(({ id, kind, label, section, targets, behind, saveAs }) => {
    // A picture shows the first, and is a link to the other.
    const led = (targets.length ? targets : [undefined]).map((target, at): Part => ({
      kind: kind === 'picture' && at ? 'link' : kind,
      ...columnsOf(target),
    }))
    const shown = behind.map((fileId): Part => ({ kind: 'fill', ...columnsOf({ kind: 'file', id: fileId }) }))
    return [...led, ...shown].map((use, part) => ({
      pageId,
      side,
      placement: id,
      part,
      label: label.slice(0, 300),
      section: section.slice(0, 300),
      saveAs,
      ...use,
    }))
  })
  await insertMany(tx, uses, rows)
}
