import type { Speech } from '../language/speech'
import type { Block, EntryListBlock } from '../page/schema'
import { fillBlocks, type Filling } from './bind'
import type { Catalogue } from './catalogue'
import type { LiveEntry } from './entry'
import { TITLE } from './field'
import type { Listed } from './list'
import type { Shown } from './shown'
import { titleOf } from './values'
import { fieldsOfList, templateOf } from './ways'

interface ListFacts {
  catalogue: Pick<Catalogue, 'fields'>
  /** entries have pages of their own */
  paged: boolean
  fileTitle: Filling['fileTitle']
  /** address of the page that it stands on */
  path: string
  speech: Speech
}

/** What a list shows: what is laid out in it, or usual for its way, filled with each of the entries that were picked for it. */
export function fillList({ attrs, content }: Pick<EntryListBlock, 'attrs' | 'content'>, listed: Listed, facts: ListFacts): Shown<Block> {
  const { catalogue, paged, fileTitle, path, speech } = facts
  const { fields } = catalogue
  const columns = attrs.way === 'table' ? fieldsOfList(attrs, fields) : []
  const template = attrs.way === 'table' ? [] : templateOf(attrs, content, fields, paged)
  const fill = (entry: LiveEntry) => {
    const filling: Filling = { fields, entry, paged, fileTitle, speech }
    const cell = (id: string): Block[] => {
      const inline = { type: 'field' as const, attrs: { field: id } }
      const link = {
        type: 'downloadLink' as const,
        attrs: { placement: attrs.placement, target: { kind: 'entry' as const, id: entry.id }, action: 'here' as const, saveAs: '' },
      }
      return fillBlocks([{ type: 'paragraph', content: [id === TITLE && paged ? { ...inline, marks: [link] } : inline] }], filling)
    }
    return {
      id: entry.id,
      title: titleOf(entry.values),
      blocks: fillBlocks(template, filling),
      cells: columns.map(({ id }) => cell(id)),
    }
  }
  const groups = listed.groups.map(({ name, entries }) => ({ name, entries: entries.map(fill) }))
  return { ...listed, groups, fields, columns, path }
}
