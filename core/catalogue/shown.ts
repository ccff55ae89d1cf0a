import type { Field } from './field'
import type { Listed } from './list'

/** An entry as it stands in a list: in blocks of a page, of which nothing is known here. */
export interface ShownEntry<Block> {
  id: string
  title: string
  /** what is laid out for all of them, filled with it */
  blocks: Block[]
  /** one for each column, where the list is a table */
  cells: Block[][]
}

/** What a list shows to whoever reads the page. */
export interface Shown<Block> extends Omit<Listed, 'groups'> {
  groups: { name: string; entries: ShownEntry<Block>[] }[]
  fields: Field[]
  /** headings of the columns, where the list is a table */
  columns: Field[]
  /** address of the page it stands on */
  path: string
}
