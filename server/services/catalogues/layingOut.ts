import { firstCard, firstLayout } from '../../../core/catalogue/ways'
import { newList } from '../../../core/catalogue/listAttrs'
import { isChoice } from '../../../core/catalogue/field'
import { newPlacementId } from '../../../core/page/insert'
import type { PageDocument } from '../../../core/page/schema'
import type { Database } from '../../db/connection'
import type { PageService } from '../pages/pages'
import { catalogueItem, holdCatalogue, mustHaveMany } from './catalogueRows'

/** Catalogues get a page that lists their entries, and one that each of them is laid out in. */
export function createLayingOut(db: Database, pages: PageService) {
  /** Makes what each entry is laid out in, where there is none yet; gives its identity. */
  async function layout(catalogueId: string): Promise<string> {
    return db.transaction(async tx => {
      const catalogue = await holdCatalogue(tx, catalogueId)
      mustHaveMany(catalogue, 'They stand in the words of pages: type / there.')
      if (catalogue.layout) return catalogue.layout
      return pages.createLayout(tx, catalogue, { type: 'doc', content: firstLayout(catalogue.fields) } as PageDocument)
    })
  }

  return {
    layout,

    /** Makes both, as drafts; gives their identities. */
    async both(catalogueId: string): Promise<{ layout: string; list: string }> {
      const made = await layout(catalogueId)
      const { name, fields, entries } = await catalogueItem(db, catalogueId)
      const narrow = fields.filter(({ kind }) => isChoice(kind)).slice(0, 2)
      const attrs = {
        ...newList(newPlacementId(), catalogueId),
        // Few are seen at a glance.
        search: entries > 12,
        narrow: entries > 6 ? narrow.map(({ id }) => id) : [],
      }
      const draft = { type: 'doc', content: [{ type: 'entryList', attrs, content: firstCard(fields, true, 2) }] } as PageDocument
      const page = await pages.create({ title: name }, { draft })
      return { layout: made, list: page.id }
    },
  }
}
export type LayingOut = ReturnType<typeof createLayingOut>
