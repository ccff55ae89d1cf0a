import { and, eq } from 'drizzle-orm'
import { idOf, placementsOf } from '../../../core/page/targets'
import type { PageDocument, Reference } from '../../../core/page/schema'
import type { UseKind } from '../../../core/files/item'
import type { Queryable } from '../../db/connection'
import { uses, type Side } from '../../db/schema'

/** What is known of a target by its identity; one elsewhere has none. */
const columnsOf = (target: Reference | undefined) => ({
  fileId: target?.kind === 'file' ? target.id : null, folderId: target?.kind === 'folder' ? target.id : null, toPage: target?.kind === 'page' ? target.id : null, signpostId: target?.kind === 'signpost' ? target.id : null,
  elsewhere: target !== undefined && idOf(target) === undefined,
})

/** Writes down where a page's document leads, in the transaction that writes the document. */
export async function recordUses(tx: Queryable, pageId: string, side: Side, document: PageDocument): Promise<void> {
  await tx.delete(uses).where(and(eq(uses.pageId, pageId), eq(uses.side, side)))
  const rows = placementsOf(document).flatMap(({ id, kind, label, targets, behind, saveAs }) => {
    const led = (targets.length ? targets : [undefined]).map(target => ({ kind: kind as UseKind, ...columnsOf(target) }))
    const shown = behind.map(fileId => ({ kind: 'fill' as const, ...columnsOf({ kind: 'file', id: fileId }) }))
    return [...led, ...shown].map((use, part) => ({ pageId, side, placement: id, part, label: label.slice(0, 300), saveAs, ...use }))
  })
  if (rows.length) await tx.insert(uses).values(rows)
}
