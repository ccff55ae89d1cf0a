import { fold } from '../find/fold'
import type { Field } from './field'
import type { ImportColumn, ImportPlan, Mapping, TableSource } from './import'

/**
 * How the next table of a source comes in: as the last one did, column by column. A column that the last one did not have goes where it
 * would by itself.
 *
 * @param first where columns go where nothing is known
 */
export function planFromSource(first: ImportPlan, columns: ImportColumn[], source: TableSource, fields: Field[]): ImportPlan {
  const used = new Set<string>()
  const mapping = columns.map(({ name }, at): Mapping[number] => {
    const known = source.columns.find(column => fold(column.name) === fold(name))
    if (known && known.field === null) return { to: 'nowhere' }
    const field = known && !used.has(known.field!) && fields.some(({ id }) => id === known.field) ? known.field! : undefined
    if (field) used.add(field)
    return field ? { to: 'field', field } : first.mapping[at]!
  })
  const key = source.key === null ? -1 : columns.findIndex(({ name }) => fold(name) === fold(source.key!))
  return {
    ...first,
    // What a known column has taken, no other one has by itself.
    mapping: mapping.map((to, at) =>
      to.to === 'field' && mapping.findIndex(each => each.to === 'field' && each.field === to.field) !== at ? { to: 'nowhere' } : to,
    ),
    key: key >= 0 ? key : source.key === null ? null : first.key,
    others: source.others,
    follow: true,
  }
}

/** What is kept of how a table came in, for the next one. */
export const sourceOf = (
  { file, edition }: Pick<TableSource, 'file' | 'edition'>,
  columns: ImportColumn[],
  { mapping, key, others }: ImportPlan,
  fields: Field[],
): TableSource => ({
  file,
  edition,
  columns: columns.map(({ name }, at) => {
    const to = mapping[at] ?? { to: 'nowhere' }
    const field = to.to === 'field' ? to.field : to.to === 'new' ? fields.find(each => fold(each.name) === fold(to.name))?.id : undefined
    return { name, field: field ?? null }
  }),
  key: key === null ? null : (columns[key]?.name ?? null),
  others,
})
